/** What of a sheet is seen: the sheet's pixel at the upper left of the canvas, and how large a pixel is, in CSS pixels. */
export interface View {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

const [smallest, largest] = [0.05, 48];

/** The whole sheet, as large as fits, in whole or evenly halved steps so that pixels stay square. */
export function fit(room: { width: number; height: number }, sheet: { width: number; height: number }): View {
  const whole = Math.min((room.width - 8) / sheet.width, (room.height - 8) / sheet.height);
  const scale = whole >= 1 ? Math.min(largest, Math.floor(whole)) : Math.max(smallest, whole);
  return {
    x: (sheet.width - room.width / scale) / 2,
    y: (sheet.height - room.height / scale) / 2,
    scale,
  };
}

/** Closer or further away, about a place of the canvas that stays where it is. */
export function zoomed(view: View, factor: number, at: { x: number; y: number }): View {
  const wanted = view.scale * factor;
  // From a pixel each on whole pixels only, so that all are of one size.
  const scale = Math.min(
    largest,
    Math.max(
      smallest,
      wanted >= 1 ? (factor > 1 ? Math.ceil(wanted - 0.001) : Math.floor(wanted + 0.001)) : wanted,
    ),
  );
  return {
    x: view.x + at.x / view.scale - at.x / scale,
    y: view.y + at.y / view.scale - at.y / scale,
    scale,
  };
}

/** A place of the canvas in pixels of the sheet. */
export const onSheet = (view: View, at: { x: number; y: number }): { x: number; y: number } => ({
  x: view.x + at.x / view.scale,
  y: view.y + at.y / view.scale,
});
