import BinaryBitmap from "@zxing/library/esm/core/BinaryBitmap";
import DecodeHintType from "@zxing/library/esm/core/DecodeHintType";
import HybridBinarizer from "@zxing/library/esm/core/common/HybridBinarizer";
import QRCodeReader from "@zxing/library/esm/core/qrcode/QRCodeReader";
import RGBLuminanceSource from "@zxing/library/esm/core/RGBLuminanceSource";

/** Luminance of a picture of red, green, blue and alpha, 0-255 each. */
export function luminance(rgba: Uint8ClampedArray): Uint8ClampedArray {
  const out = new Uint8ClampedArray(rgba.length / 4);
  for (let i = 0; i < out.length; i++)
    out[i] = (rgba[4 * i]! * 306 + rgba[4 * i + 1]! * 601 + rgba[4 * i + 2]! * 117) >> 10;
  return out;
}

/** The text of the square code in a picture; nothing where none can be read. */
export function readSquare(picture: {
  data: Uint8ClampedArray;
  width: number;
  height: number;
}): string | undefined {
  const source = new RGBLuminanceSource(luminance(picture.data), picture.width, picture.height);
  try {
    return new QRCodeReader()
      .decode(new BinaryBitmap(new HybridBinarizer(source)), new Map([[DecodeHintType.TRY_HARDER, true]]))
      .getText();
  } catch {
    return undefined; // no code in this picture; the next one may have it
  }
}
