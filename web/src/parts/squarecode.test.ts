import QRCode from "qrcode";
import { expect, test } from "vitest";
import { labelCode } from "./label";
import { readSquare } from "./squarecode";

/** A picture of a square code as a camera gives it: each module so many pixels, with a margin. */
function picture(text: string, pixels = 6) {
  const { data, size } = QRCode.create(text, { errorCorrectionLevel: "M" }).modules;
  const width = (size + 8) * pixels;
  const out = new Uint8ClampedArray(width * width * 4).fill(255);
  for (let y = 0; y < width; y++)
    for (let x = 0; x < width; x++) {
      const [col, row] = [Math.floor(x / pixels) - 4, Math.floor(y / pixels) - 4];
      if (col >= 0 && row >= 0 && col < size && row < size && data[row * size + col])
        out.fill(20, 4 * (y * width + x), 4 * (y * width + x) + 3);
    }
  return { data: out, width, height: width };
}

test("labels are read as they are printed, whatever their length", () => {
  for (const code of ["D1", "QB-D5-0017", "https://crew.example/l/LN4-2203", "x".repeat(120)])
    expect(readSquare(picture(code))).toBe(code);
});

test("no code, or half of one, is nothing", () => {
  expect(readSquare({ data: new Uint8ClampedArray(64 * 64 * 4).fill(255), width: 64, height: 64 })).toBe(
    undefined,
  );
  const p = picture("D1");
  p.data.fill(255, 0, p.data.length / 2);
  expect(readSquare(p)).toBe(undefined);
});

test("the code of a label is its last part, or all of it", () => {
  expect(labelCode(" https://crew.example/l/LN4%2F2203 ")).toBe("LN4/2203");
  expect(labelCode("D5")).toBe("D5");
  expect(labelCode("/l/%")).toBe("/l/%");
});
