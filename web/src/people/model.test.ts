import { describe, expect, it } from "vitest";
import { boxes, newPasswordForm, newPinForm, personForm, secretsForm, ticked } from "./model";

const faults = (r: { success: boolean; error?: { issues: { path: PropertyKey[] }[] } }) =>
  r.error?.issues.map((i) => i.path.join(".")) ?? [];

describe("own secrets", () => {
  const good = { new_password: "hop hedge drum", again: "hop hedge drum", pin: "7391", pin_again: "7391" };
  it("takes a password and a PIN typed twice alike", () => {
    expect(secretsForm("new").safeParse(good).success).toBe(true);
  });
  it("names what differs", () => {
    expect(faults(secretsForm("new").safeParse({ ...good, again: "hop hedge" }))).toEqual(["again"]);
    expect(faults(secretsForm("new").safeParse({ ...good, pin_again: "7392" }))).toEqual(["pin_again"]);
    expect(faults(secretsForm("new").safeParse({ ...good, pin: "73", pin_again: "73" }))).toEqual(["pin"]);
  });
  it("asks for the old PIN once after a reset", () => {
    expect(secretsForm("reset").safeParse({ ...good, pin_again: "" }).success).toBe(true);
  });

  it("takes nothing chosen blind that was typed once, and asks for the password there is", () => {
    const { new_password, pin } = good;
    const password = "quillback-demo";
    expect(newPinForm.safeParse({ password, pin, pin_again: pin }).success).toBe(true);
    expect(faults(newPinForm.safeParse({ password: "", pin, pin_again: "" }))).toEqual([
      "password",
      "pin_again",
    ]);
    expect(faults(newPinForm.safeParse({ password, pin: "73x1", pin_again: "73x1" }))).toEqual(["pin"]);
    expect(newPasswordForm.safeParse({ password, new_password, again: new_password }).success).toBe(true);
    expect(faults(newPasswordForm.safeParse({ password, new_password, again: "hop" }))).toEqual(["again"]);
    expect(faults(newPasswordForm.safeParse({ password, new_password: "hop", again: "hop" }))).toEqual([
      "new_password",
    ]);
  });
});

describe("a person", () => {
  const p = {
    name: "Ada",
    login: "ada",
    roles: boxes(["pilot"]),
    certificate: "",
    trained_on: "",
    stick_mode: "2",
    active: true,
  };
  it("needs a name, a role, and at first a sign-in name", () => {
    expect(personForm(true).safeParse(p).success).toBe(true);
    expect(faults(personForm(true).safeParse({ ...p, name: " ", login: "" }))).toEqual(["name", "login"]);
    expect(faults(personForm(false).safeParse({ ...p, login: "", roles: boxes([]) }))).toEqual(["roles"]);
  });
  it("takes a stick mode that there is, or none", () => {
    const of = (stick_mode: string) => faults(personForm(true).safeParse({ ...p, stick_mode }));
    expect(["", "1", "4"].flatMap(of)).toEqual([]);
    expect(of("5")).toEqual(["stick_mode"]);
  });
  it("turns roles into boxes and back", () => {
    expect(ticked(boxes(["reader", "pilot"]))).toEqual(["pilot", "reader"]);
  });
});
