import { type Schemas } from "../api/client";
import { VerdictMark } from "../parts/Flag";
import { serverNow } from "../parts/time";
import { counted } from "../parts/number";

type Paper = Schemas["Paper"];

/** For whom, on what and how long a document holds. */
export function Holds({ p }: { p: Paper }) {
  const left = p.expires_on ? (Date.parse(p.expires_on) - serverNow()) / 86_400_000 : Infinity;
  if (!p.in_force)
    return (
      <>
        <VerdictMark verdict="stop" /> does not hold
      </>
    );
  if (left < 30)
    return (
      <>
        <VerdictMark verdict="watch" /> ends in {counted(Math.max(0, Math.ceil(left)), "day")}
      </>
    );
  return (
    <>
      <VerdictMark verdict="clear" /> holds
    </>
  );
}
