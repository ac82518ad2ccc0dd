import { VerdictMark } from "../parts/Flag";
import { Fold } from "../parts/Fold";
import { useZone } from "../parts/time";
import { useBefore } from "./api";

/** What earlier walks of this aircraft said and showed at the same item. */
export function Before({ run, item, photos }: { run: string; item: string; photos: string[] }) {
  const z = useZone();
  const before = useBefore(run, item);
  if (!before.length) return null;
  const last = before.find((b) => b.photos.length > 0);
  return (
    <Fold summary={`Said here before: ${before.length}`} open={photos.length > 0 && last !== undefined}>
      {before.map((b) => (
        <div key={b.at} className="mb-2">
          <VerdictMark verdict={b.verdict} /> {z.date(b.at)}, {b.by}
          {b.note && <>: {b.note}</>}
        </div>
      ))}
      {last && (
        <div className="d-flex flex-wrap gap-2" aria-label="The last picture beside today's">
          <figure>
            <img
              className="border mw-100"
              height="84"
              src={`/api/v1/photos/${last.photos[0]}`}
              alt={`Picture of ${z.date(last.at)}`}
            />
            <figcaption className="soft">{z.date(last.at)}</figcaption>
          </figure>
          {photos.map((p) => (
            <figure key={p}>
              <img className="border mw-100" height="84" src={`/api/v1/photos/${p}`} alt="Picture of today" />
              <figcaption className="soft">today</figcaption>
            </figure>
          ))}
        </div>
      )}
    </Fold>
  );
}
