import { useEffect, useMemo } from "react";
import { newId, ProblemError, type Schemas } from "../api/client";
import { heard, missed } from "../api/link";
import { PhotoField, type PhotoFieldProps } from "../parts/PhotoField";
import { usePress, usePresses } from "./hooks";
import { pressKind } from "./kinds";
import type { Press } from "./model";
import { presses } from "./store";
import { Refused } from "./Waits";

interface KeptPhoto {
  photo: File;
}

/** Photos but those that the server did not take: what they belong to must not wait for them for ever. */
export function withoutRefused(photos: string[]): string[] {
  const refused = new Set(presses().flatMap((p) => (p.kind === "photo" && p.refused ? [p.thing] : [])));
  return photos.filter((id) => !refused.has(id));
}

/** How long one photo may take over a poor network, in ms. */
const photoTakes = 110_000;

pressKind<KeptPhoto>("photo", {
  said: () => "A photo",
  takes: photoTakes,
  send: async (p, { header, signal }) => {
    // The photo's own id makes it one.
    const headers = { "content-type": "application/octet-stream", "Press-By": header["Press-By"] };
    let r: Response;
    try {
      r = await fetch(`/api/v1/photos?id=${p.thing}`, {
        method: "POST",
        headers,
        body: p.body.photo,
        signal,
      });
    } catch {
      if (!signal.aborted) missed();
      throw new ProblemError({ type: "unreachable", title: "No connection", status: 0, detail: "" });
    }
    heard();
    if (!r.ok) throw new ProblemError((await r.json()) as Schemas["Problem"]);
  },
});

/** Photos that are kept on the device until the server has them; they count at once. */
export function KeptPhotoField(props: Omit<PhotoFieldProps, "send" | "src">) {
  const press = usePress();
  const all = usePresses();
  const urls = useMemo(() => {
    const kept = all.filter((p) => p.kind === "photo" && props.photos.includes(p.thing));
    return new Map(kept.map((p) => [p.thing, URL.createObjectURL((p as Press<KeptPhoto>).body.photo)]));
  }, [all, props.photos]);
  useEffect(() => () => urls.forEach((u) => URL.revokeObjectURL(u)), [urls]);
  const refused = all.filter((p) => p.kind === "photo" && p.refused && props.photos.includes(p.thing));
  return (
    <>
      <Refused refused={refused} />
      <PhotoField
        {...props}
        send={async (photo) => press<KeptPhoto>("photo", newId(), { photo }).thing}
        src={(id) => urls.get(id) ?? `/api/v1/photos/${id}`}
      />
    </>
  );
}
