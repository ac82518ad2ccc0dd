export interface PhotosProps {
  ids: string[];
  /** What the picture with that number shows, from 1. */
  alt: (n: number) => string;
}

/** Pictures in small; a press shows one whole. */
export function Photos({ ids, alt }: PhotosProps) {
  if (ids.length === 0) return null;
  return (
    <div className="d-flex flex-wrap gap-2 my-1">
      {ids.map((p, i) => (
        <a key={p} className="mw-100" href={`/api/v1/photos/${p}`} target="_blank" rel="noreferrer">
          <img
            className="border mw-100 object-fit-cover"
            height="84"
            src={`/api/v1/photos/${p}`}
            alt={alt(i + 1)}
          />
        </a>
      ))}
    </div>
  );
}
