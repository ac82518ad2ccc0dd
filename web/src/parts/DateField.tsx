import { useState, type ChangeEvent, type FocusEvent } from "react";
import { TextField, type TextFieldProps } from "./Field";
import { isDay, isMoment, shaped, weekday } from "./when";

type Props = Omit<TextFieldProps, "type">;

interface Kind {
  parts: 3 | 5;
  example: string;
  good: (text: string) => boolean;
  sentence: string;
}

const day: Kind = {
  parts: 3,
  example: "2026-11-30",
  good: isDay,
  sentence: "Enter the day as year, month, day: 2026-11-30.",
};
const moment: Kind = {
  parts: 5,
  example: "2026-11-30 18:05",
  good: isMoment,
  sentence: "Enter day and time as 2026-11-30 18:05, by the clock of 24 hours.",
};

/** A field that brings what is typed into shape, and says when it is no day or no moment. */
function When({ kind, wrong, hint, ...rest }: Props & { kind: Kind }) {
  const [shown, setShown] = useState(String(rest.value ?? rest.defaultValue ?? ""));
  const [bad, setBad] = useState(false);
  const change = (e: ChangeEvent<HTMLInputElement>) => {
    const back = (e.nativeEvent as InputEvent).inputType?.startsWith("delete");
    e.target.value = shaped(e.target.value, kind.parts, !back);
    setShown(e.target.value);
    setBad(false);
    rest.onChange?.(e);
  };
  const leave = (e: FocusEvent<HTMLInputElement>) => {
    setShown(e.target.value);
    setBad(e.target.value !== "" && !kind.good(e.target.value));
    rest.onBlur?.(e);
  };
  return (
    <TextField
      {...rest}
      inputMode="numeric"
      autoComplete="off"
      placeholder={kind.example}
      onChange={change}
      onBlur={leave}
      onKeyDown={(e) => {
        if (e.key === "Enter" && !e.currentTarget.form) e.currentTarget.blur(); // Enter goes on, as in a form
        rest.onKeyDown?.(e);
      }}
      hint={[weekday(shown), hint].filter(Boolean).join(" · ") || undefined}
      wrong={bad ? kind.sentence : wrong}
    />
  );
}

/** A day, as 2026-11-30. */
export function DateField(props: Props) {
  return <When {...props} kind={day} />;
}

/** A day and a time by the clock of 24 hours, in the zone that is named. */
export function MomentField({ zone, ...props }: Props & { zone: string }) {
  const place = zone.split("/").pop()?.replace(/_/g, " ");
  return <When {...props} hint={[`${place} time`, props.hint].filter(Boolean).join(" · ")} kind={moment} />;
}
