import type { Bindings, Controls, LoadedCharacter } from '@dot-hop/browser';
import { ConeGeometry, Mesh, MeshBasicMaterial, Raycaster, Vector2, WebGLRenderer } from 'three';
import { chanceFrom } from '../../../common/chance.js';
import type { Townsfolk } from '../../../common/townsfolk.js';
import { OrbitingCamera } from './camera.js';
import { Figure, pixel } from './figure.js';
import { Quay } from './quay.js';
import { Rounds } from './rounds.js';

/** What takes the camera round, and up and down. */
export const bindings: Bindings = {
  across: {
    less: { keys: ['ArrowLeft', 'KeyA'], buttons: [14], axis: 0 },
    more: { keys: ['ArrowRight', 'KeyD'], buttons: [15], axis: 0 },
  },
  down: {
    less: { keys: ['ArrowUp', 'KeyW'], buttons: [12], axis: 1 },
    more: { keys: ['ArrowDown', 'KeyS'], buttons: [13], axis: 1 },
  },
};

/** Display pixels that one pixel of the picture takes: the world is drawn as coarsely as its people. */
const coarseness = 2;

/** Pixels a second. */
const paces = { walk: 22, child: 32, wick: 52 };

/** Over the highest hat, in units. */
const markerHeight = 2.4;

/** The quay with its people and the camera that goes round it. */
export class Game {
  readonly camera = new OrbitingCamera();
  readonly figures: readonly Figure[];
  selected: Figure;
  /** Whether all stand still, to be looked at from every side. */
  stands = false;
  private readonly rounds: readonly Rounds[];
  private readonly quay = new Quay();
  private readonly marker = new Mesh(
    new ConeGeometry(0.22, 0.34, 4),
    new MeshBasicMaterial({ color: '#ffc95c' }),
  );
  private renderer: WebGLRenderer | undefined;
  private time = 0;

  constructor(
    folk: Townsfolk,
    wick: LoadedCharacter,
    private readonly controls: Controls,
  ) {
    const chance = chanceFrom(12);
    const cast = { ...folk, wick };
    const characters = Object.entries(cast);
    // Two of each of the townsfolk, and one Wick.
    const all = [...characters, ...characters.filter(([name]) => name !== 'wick')];
    this.figures = all.map(([name, character]) => new Figure(name, character));
    this.rounds = this.figures.map((figure) => {
      const pace = figure.name === 'wick' ? paces.wick : figure.name === 'pim' ? paces.child : paces.walk;
      return new Rounds(figure, chance, pace * pixel);
    });
    this.selected = this.figures[0]!;
    this.marker.rotation.x = Math.PI;
    this.quay.scene.add(this.marker, ...this.figures.map(({ upright }) => upright.object));
  }

  /** Draws onto a canvas from now on, as wide as there is room. */
  mount(canvas: HTMLCanvasElement, width: number, height: number): void {
    if (this.renderer === undefined) {
      if (canvas.getContext('webgl2') === null)
        throw new Error(
          'This browser, or this machine, has no WebGL 2, which draws the quay in three dimensions.',
        );
      this.renderer = new WebGLRenderer({ canvas, antialias: false });
      this.camera.listen(canvas);
      canvas.addEventListener('click', (event) => this.select(canvas, event));
    }
    // Each pixel of the picture is a square of whole pixels of the display, at any zoom of the page.
    const ratio = window.devicePixelRatio;
    const square = Math.max(1, Math.round(coarseness * ratio));
    const [across, down] = [Math.floor((width * ratio) / square), Math.floor((height * ratio) / square)];
    this.renderer.setPixelRatio(1);
    this.renderer.setSize(across, down, false);
    canvas.style.width = `${(across * square) / ratio}px`;
    canvas.style.height = `${(down * square) / ratio}px`;
    this.camera.resize(across, down);
  }

  step(ms: number): void {
    this.time += ms;
    const { controls, camera } = this;
    camera.step(ms, controls.numberOf('across'), -controls.numberOf('down'));
    for (const one of this.rounds) one.step(ms, this.stands);
    for (const figure of this.figures) figure.step(ms, camera.camera);
  }

  draw(): void {
    if (this.renderer === undefined) return;
    this.quay.step(this.time);
    for (const figure of this.figures) figure.draw(this.camera.camera);
    const { x, z } = this.selected;
    this.marker.position.set(x, markerHeight + Math.sin(this.time / 260) * 0.06, z);
    this.renderer.render(this.quay.scene, this.camera.camera);
  }

  /** Selects whoever is clicked. */
  private select(canvas: HTMLCanvasElement, event: MouseEvent): void {
    const { left, top, width, height } = canvas.getBoundingClientRect();
    const at = new Vector2(
      ((event.clientX - left) / width) * 2 - 1,
      1 - ((event.clientY - top) / height) * 2,
    );
    const ray = new Raycaster();
    ray.setFromCamera(at, this.camera.camera);
    const nearest = (figure: Figure): number =>
      ray.intersectObject(figure.upright.object)[0]?.distance ?? Infinity;
    const [hit] = this.figures.toSorted((one, other) => nearest(one) - nearest(other));
    if (hit !== undefined && nearest(hit) < Infinity) this.selected = hit;
  }
}
