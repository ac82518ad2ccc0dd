import { useEffect, useMemo } from "react";
import { newId, ProblemError, type Schemas } from "../api/client";
import { heard, missed } from "../api/link";
import { PhotoField, type PhotoFieldProps } from "../parts/PhotoField";
import { usePress, usePresses } from "./hooks";
import { pressKind } from "./kinds";
import type { Press } from "./model";

interface KeptPhoto {
  photo: File;
}

/** How long one photo may take over a poor network, in ms. */
const photoTakes = 110_000;

pressKind<KeptPhoto>("photo", {
  said: () => "A photo",
  send: async (p, header) => {
    const headers = { "content-type": "application/octet-stream", "Press-Id": header["Press-Id"] };
    let r: Response;
    try {
      const signal = AbortSignal.timeout(photoTakes);
      r = await fetch(`/api/v1/photos?id=${p.thing}`, {
        method: "POST",
        headers,
        body: p.body.photo,
        signal,
      });
    } catch {
      missed();
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
  return (
    <PhotoField
      {...props}
      send={async (photo) => press<KeptPhoto>("photo", newId(), { photo }).thing}
      src={(id) => urls.get(id) ?? `/api/v1/photos/${id}`}
    />
  );
}
