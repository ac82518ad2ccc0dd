import { expect, it } from "vitest";
import { loginOf } from "./login";

it("proposes a sign-in name that the server takes, or none", () => {
  expect(loginOf("Ada Field")).toBe("ada");
  expect(loginOf(" \u00c9lise-Marie Roux")).toBe("elisemarie");
  expect(loginOf("J. Roe")).toBe("");
  expect(loginOf("")).toBe("");
  expect(loginOf("\u5c71\u7530 Taro")).toBe("");
});
