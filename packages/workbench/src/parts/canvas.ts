/**
 * How the canvases of small pictures are kept: in plain memory. Where a page has no graphics card, or a weak one, handing each
 * picture over to it takes longer than drawing these few pixels.
 */
export const inPlainMemory: CanvasRenderingContext2DSettings = { willReadFrequently: true };
