import type { Game } from './game.js';

/** How far a finger may move, in CSS pixels, and still tap. */
const still = 6;

/** A drag moves the view, a tap takes somebody by the hand, a wheel makes all larger and smaller. */
export function followHands(canvas: HTMLCanvasElement, game: Game): void {
  canvas.style.touchAction = 'none';
  let held: { id: number; x: number; y: number; far: number } | undefined;
  canvas.addEventListener('pointerdown', (event) => {
    if (event.button !== 0 || held !== undefined) return;
    held = { id: event.pointerId, x: event.clientX, y: event.clientY, far: 0 };
    canvas.setPointerCapture(event.pointerId);
  });
  canvas.addEventListener('pointermove', (event) => {
    if (held?.id !== event.pointerId) return;
    const [x, y] = [event.clientX - held.x, event.clientY - held.y];
    held.far += Math.hypot(x, y);
    [held.x, held.y] = [event.clientX, event.clientY];
    if (held.far < still) return;
    game.crowd.lead(-1);
    const ratio = window.devicePixelRatio / game.zoom;
    game.moveView(-x * ratio, -y * ratio);
  });
  canvas.addEventListener('pointerup', (event) => {
    if (held?.id !== event.pointerId) return;
    const { left, top, width, height } = canvas.getBoundingClientRect();
    if (held.far < still) game.leadAt((event.clientX - left) / width, (event.clientY - top) / height);
    held = undefined;
  });
  canvas.addEventListener('pointercancel', () => (held = undefined));
  canvas.addEventListener(
    'wheel',
    (event) => {
      event.preventDefault();
      if (event.deltaY !== 0) game.zoomTo(Math.max(1, Math.min(3, game.zoom - Math.sign(event.deltaY))));
    },
    { passive: false },
  );
}
