import { stampsOf } from 'dot-hop';
import type { Controller, Pose } from 'dot-hop';
import type { DrawnMembers, Troupe } from 'dot-hop/troupe';
import { LoadError } from './images.js';

/** Numbers of one rectangle: place, size, corner in the image, and whether it is flipped. */
const stride = 8;

/** Two triangles as a strip; the corner is the number of the vertex. */
const vertexShader = `#version 300 es
layout(location = 0) in vec4 place;
layout(location = 1) in vec4 cut;
uniform vec4 view;
uniform vec2 sheet;
out vec2 at;
void main() {
  vec2 corner = vec2(gl_VertexID & 1, gl_VertexID >> 1);
  vec2 pixel = (place.xy + corner * place.zw - view.xy) / view.zw;
  gl_Position = vec4(pixel.x * 2.0 - 1.0, 1.0 - pixel.y * 2.0, 0.0, 1.0);
  vec2 turned = mix(corner, 1.0 - corner, cut.zw);
  at = (cut.xy + turned * place.zw) / sheet;
}`;
const fragmentShader = `#version 300 es
precision mediump float;
uniform sampler2D image;
in vec2 at;
out vec4 colour;
void main() { colour = texture(image, at); }`;

/** A part of the level that is painted: its upper left corner and its size, in pixels of the drawings. */
export interface PaintedView {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What is on the graphics card; made again when the card was lost. */
interface Card {
  readonly gl: WebGL2RenderingContext;
  readonly program: WebGLProgram;
  readonly instances: WebGLBuffer;
  readonly textures: Map<TexImageSource, WebGLTexture>;
  readonly view: WebGLUniformLocation | null;
  readonly sheet: WebGLUniformLocation | null;
}

/**
 * Paints many poses fast, with WebGL 2. Poses in a row that are on the same image take one draw call. Drawings stay sharp. What you paint
 * later lies over what you painted before, as on a canvas.
 *
 * @example
 * painter.begin({ x: cameraX, y: 0, width: 280, height: 198 });
 * for (const one of crowd) painter.paint(one.performer.pose, one.x, one.y);
 * painter.stamp(trees, 0, 0, 64, 80, treeX, treeY);
 * painter.end();
 */
export class Painter {
  /** The number of draw calls of the latest picture. */
  calls = 0;
  private card: Card | undefined;
  private numbers = new Float32Array(stride * 256);
  private count = 0;
  private image: TexImageSource | undefined;
  private view: PaintedView = { x: 0, y: 0, width: 1, height: 1 };
  private readonly stop = new AbortController();

  /**
   * @param images the images by file
   * @throws {LoadError} where there is no WebGL 2
   */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly images: Readonly<Record<string, TexImageSource>>,
  ) {
    this.card = this.takeCard();
    const { signal } = this.stop;
    // Without this the card would never come back.
    canvas.addEventListener('webglcontextlost', (event) => this.lose(event), { signal });
    canvas.addEventListener('webglcontextrestored', () => (this.card = this.takeCard()), { signal });
  }

  /** Begins a picture. It is clear at first. */
  begin(view: PaintedView): void {
    this.view = view;
    this.calls = 0;
    this.count = 0;
    this.image = undefined;
    if (this.card === undefined) return;
    const { gl } = this.card;
    gl.viewport(0, 0, this.canvas.width, this.canvas.height);
    gl.clearColor(0, 0, 0, 0);
    gl.clear(gl.COLOR_BUFFER_BIT);
  }

  /** Paints a pose with its pivot at a place, rounded to whole pixels. */
  paint(pose: Pose, x: number, y: number): void {
    for (const { cell, image, x: left, y: top, flipX, flipY } of stampsOf(pose))
      this.stamp(
        this.images[image]!,
        cell.x,
        cell.y,
        cell.width,
        cell.height,
        x + left,
        y + top,
        flipX,
        flipY,
      );
  }

  /**
   * Paints members of a troupe, each with its pivot at its place, in the order of their indices. It makes no object.
   *
   * @param drawn what `troupe.draw(drawn)` wrote. A place whose cell is -1 is skipped
   * @param x the places of the members from left to right, in pixels of the drawings; `y` downwards
   * @param count the number of members, from the first on; default: as many as the arrays have room for
   */
  paintMembers(
    troupe: Troupe,
    drawn: DrawnMembers,
    x: ArrayLike<number>,
    y: ArrayLike<number>,
    count = Math.min(drawn.cell.length, x.length),
  ): void {
    const poses = posesOf(troupe);
    const { cell, image, mirrored } = drawn;
    for (let i = 0; i < count; i++) {
      if (cell[i]! < 0) continue;
      this.paint(poses[image[i]!]![2 * cell[i]! + mirrored[i]!]!, x[i]!, y[i]!);
    }
  }

  /**
   * Paints a rectangle of an image with its upper left corner at a place, rounded to whole pixels: scenery, or the drawings of a troupe,
   * for which there are no poses. It makes no object.
   *
   * @param left the left edge of the rectangle in the image; `top`, `width` and `height` likewise
   * @param x the place of its corner
   */
  stamp(
    image: TexImageSource,
    left: number,
    top: number,
    width: number,
    height: number,
    x: number,
    y: number,
    flipX = false,
    flipY = false,
  ): void {
    if (image !== this.image) this.flush();
    this.image = image;
    if ((this.count + 1) * stride > this.numbers.length) this.grow();
    const at = this.count++ * stride;
    const { numbers } = this;
    numbers[at] = Math.round(x);
    numbers[at + 1] = Math.round(y);
    numbers[at + 2] = width;
    numbers[at + 3] = height;
    numbers[at + 4] = left;
    numbers[at + 5] = top;
    numbers[at + 6] = flipX ? 1 : 0;
    numbers[at + 7] = flipY ? 1 : 0;
  }

  /** Ends a picture. */
  end(): void {
    this.flush();
  }

  /** Frees its memory on the graphics card. */
  destroy(): void {
    this.stop.abort();
    if (this.card === undefined) return;
    const { gl, program, instances, textures } = this.card;
    for (const texture of textures.values()) gl.deleteTexture(texture);
    gl.deleteBuffer(instances);
    gl.deleteProgram(program);
    this.card = undefined;
  }

  private grow(): void {
    const larger = new Float32Array(this.numbers.length * 2);
    larger.set(this.numbers);
    this.numbers = larger;
  }

  private flush(): void {
    const { card, image, count, numbers, view } = this;
    this.count = 0;
    if (card === undefined || image === undefined || count === 0) return;
    const { gl, textures } = card;
    let texture = textures.get(image);
    if (texture === undefined) {
      texture = textureOf(gl, image);
      textures.set(image, texture);
    }
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.uniform4f(card.view, view.x, view.y, view.width, view.height);
    const { width, height } = image as { width: number; height: number };
    gl.uniform2f(card.sheet, width, height);
    gl.bufferData(gl.ARRAY_BUFFER, numbers.subarray(0, count * stride), gl.DYNAMIC_DRAW);
    gl.drawArraysInstanced(gl.TRIANGLE_STRIP, 0, 4, count);
    this.calls++;
  }

  private lose(event: Event): void {
    event.preventDefault();
    this.card = undefined;
  }

  private takeCard(): Card {
    const gl = this.canvas.getContext('webgl2', { antialias: false, depth: false });
    if (gl === null)
      throw new LoadError('this browser, or this machine, has no WebGL 2; draw with drawPose on a canvas');
    const program = programOf(gl);
    const instances = gl.createBuffer();
    gl.useProgram(program);
    gl.bindBuffer(gl.ARRAY_BUFFER, instances);
    for (const [location, offset] of [
      [0, 0],
      [1, 16],
    ] as const) {
      gl.enableVertexAttribArray(location);
      gl.vertexAttribPointer(location, 4, gl.FLOAT, false, stride * 4, offset);
      gl.vertexAttribDivisor(location, 1);
    }
    gl.enable(gl.BLEND);
    gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA);
    const place = (name: string): WebGLUniformLocation | null => gl.getUniformLocation(program, name);
    return { gl, program, instances, textures: new Map(), view: place('view'), sheet: place('sheet') };
  }
}

/** What the numbers of a troupe stand for: by image, then by cell, drawn (even places) and mirrored (odd ones). */
type NumberedPoses = readonly Pose[][];

const numbered = new WeakMap<Controller, NumberedPoses>();

function posesOf({ controller, images }: Troupe): NumberedPoses {
  const known = numbered.get(controller);
  if (known !== undefined) return known;
  const made = images.map((): Pose[] => []);
  for (const { flipbooks } of controller.states)
    for (const pose of flipbooks.flat().flatMap(({ poses }) => poses))
      made[images.indexOf(pose.cell.image)]![2 * pose.cell.index + (pose.mirrored ? 1 : 0)] = pose;
  numbered.set(controller, made);
  return made;
}

function textureOf(gl: WebGL2RenderingContext, image: TexImageSource): WebGLTexture {
  const texture = gl.createTexture();
  gl.bindTexture(gl.TEXTURE_2D, texture);
  gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, true);
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA, gl.RGBA, gl.UNSIGNED_BYTE, image);
  for (const filter of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER])
    gl.texParameteri(gl.TEXTURE_2D, filter, gl.NEAREST);
  for (const wrap of [gl.TEXTURE_WRAP_S, gl.TEXTURE_WRAP_T])
    gl.texParameteri(gl.TEXTURE_2D, wrap, gl.CLAMP_TO_EDGE);
  return texture;
}

function programOf(gl: WebGL2RenderingContext): WebGLProgram {
  const program = gl.createProgram();
  for (const [kind, source] of [
    [gl.VERTEX_SHADER, vertexShader],
    [gl.FRAGMENT_SHADER, fragmentShader],
  ] as const) {
    const shader = gl.createShader(kind)!;
    gl.shaderSource(shader, source);
    gl.compileShader(shader);
    gl.attachShader(program, shader);
    gl.deleteShader(shader);
  }
  gl.linkProgram(program);
  return program;
}
