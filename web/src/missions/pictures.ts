import type { Schemas } from "../api/client";
import { shotOf, type Tags } from "./model";

/** As many pictures as are read at once: a tablet has few cores, and each reads from the card. */
const atOnce = 4;

/**
 * The places and times of pictures, read from their tags on this device: only the
 * head of each file is looked at, and nothing but place and time leaves it.
 */
export async function readPictures(
  files: File[],
  progress: (done: number) => void,
): Promise<Schemas["PictureShot"][]> {
  const { default: exifr } = await import("exifr");
  const out: Schemas["PictureShot"][] = new Array(files.length);
  let next = 0;
  let done = 0;
  const work = async () => {
    for (let i = next++; i < files.length; i = next++) {
      const file = files[i]!;
      let tags: Tags | undefined;
      try {
        tags = await read(exifr, file);
      } catch {
        tags = undefined; // no picture, or one without tags: it counts as one without a place
      }
      out[i] = shotOf(file.name, tags);
      if (++done % 20 === 0 || done === files.length) progress(done);
    }
  };
  await Promise.all(Array.from({ length: Math.min(atOnce, files.length) }, work));
  return out;
}

type Reader = typeof import("exifr").default;

/** The tags lie in the first bytes of nearly every picture; only where they do not is it read further. */
const headBytes = 64 * 1024;

async function read(exifr: Reader, file: File): Promise<Tags | undefined> {
  const wanted = {
    pick: ["DateTimeOriginal", "GPSLatitude", "GPSLongitude", "GPSLatitudeRef", "GPSLongitudeRef"],
    reviveValues: false,
    gps: true,
  };
  const head = await file.slice(0, headBytes).arrayBuffer();
  let tags: Tags | undefined;
  try {
    tags = (await exifr.parse(head, wanted)) as Tags | undefined;
  } catch {
    tags = undefined; // cut off within its tags
  }
  if (tags !== undefined || file.size <= headBytes) return tags;
  return (await exifr.parse(file, wanted)) as Tags | undefined;
}
