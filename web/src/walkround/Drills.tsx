import { Sheet } from "../parts/Sheet";
import { useDrills } from "./api";

/** What the person who is signed in made of the pictures of drills; of the crew only a rate. */
export function Drills() {
  const d = useDrills().data;
  if (!d || d.crew_shown === 0) return null;
  return (
    <Sheet title="Pictures of damage on your walks">
      <p className="m-0">
        {d.shown === 0 ? "None was shown to you yet." : `You saw ${d.right} of ${d.shown} rightly.`} The crew
        as a whole: {Math.round((100 * d.crew_right) / d.crew_shown)} % of {d.crew_shown}. Nobody else is told
        how you did.
      </p>
    </Sheet>
  );
}
