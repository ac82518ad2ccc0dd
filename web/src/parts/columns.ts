import type { CSSProperties } from "react";

/** Columns of the lines of a list, or of a group of boxes; on a phone they stand one below the other. */
export const columns = (widths: string) => ({ "--cols": widths }) as CSSProperties;

/** Boxes side by side, as many as fit, none narrower than so many pixels. */
export const tiles = (least: number) => ({ "--least": `${least}px` }) as CSSProperties;
