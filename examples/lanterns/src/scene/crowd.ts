import type { Controller } from 'dot-hop';
import { Troupe } from 'dot-hop/troupe';
import type { DrawnMembers } from 'dot-hop/troupe';
import { chanceFrom } from '../../../common/chance.js';
import type { Boats } from './boats.js';
import type { FolkNames } from './folk.js';
import { nearWater, pavement, quay } from './quay.js';

/** The most people of the slider. */
export const mostPeople = 50_000;

/** So slow that nobody walks, and the compass turns all the same: who greets a boat looks at the water. */
const turning = 4.5;

/**
 * The people: what each of them shows is the troupe's affair; here is where they are and where they want to go, in arrays, a place for each.
 */
export class Crowd {
  readonly troupe: Troupe<FolkNames>;
  readonly x = new Float32Array(mostPeople);
  readonly y = new Float32Array(mostPeople);
  /** Which of the looks each has. */
  readonly look = new Uint8Array(mostPeople);
  /** What each shows now, for drawing. */
  readonly drawn: DrawnMembers = {
    cell: new Int32Array(mostPeople),
    image: new Uint16Array(mostPeople),
    mirrored: new Uint8Array(mostPeople),
  };
  /** Who is led by hand; -1 for nobody. */
  led = -1;
  /** How long the troupe's latest step took, in milliseconds, and how much it told. */
  took = 0;
  told = 0;
  /** Pixels a second, as they are told. */
  private readonly vx = new Float32Array(mostPeople);
  private readonly vy = new Float32Array(mostPeople);
  /** When each thinks of something else, and when it waves, in milliseconds; 0 for not at all. */
  private readonly until = new Float64Array(mostPeople);
  private readonly wavesAt = new Float64Array(mostPeople);
  private readonly greeted = new Int32Array(mostPeople).fill(-1);
  private readonly chance = chanceFrom(12);
  private time = 0;
  private readonly hail;
  private readonly signals;

  /** @param looks how many looks there are */
  constructor(
    controller: Controller<FolkNames>,
    private readonly looks: number,
    count: number,
  ) {
    this.troupe = new Troupe(controller);
    this.hail = controller.signal('hail');
    this.signals = { vx: controller.signal('vx'), vy: controller.signal('vy') };
    this.resize(count);
  }

  get count(): number {
    return this.troupe.members;
  }

  /** Has so many people on the quay. Those who are there stay. */
  resize(count: number): void {
    const { troupe, chance, looks } = this;
    while (troupe.members > count) troupe.remove(troupe.members - 1);
    while (troupe.members < count) {
      const one = troupe.add();
      this.x[one] = 12 + chance() * (quay.width - 24);
      this.y[one] = pavement.top + 14 + chance() * (pavement.shore - pavement.top - 26);
      this.look[one] = Math.floor(chance() * looks);
      this.vx[one] = this.vy[one] = this.wavesAt[one] = 0;
      this.greeted[one] = -1;
      this.until[one] = this.time + chance() * 3000;
    }
    if (this.led >= count) this.led = -1;
  }

  /** Leads one of them, or nobody. */
  lead(one: number): void {
    if (this.led >= 0) this.until[this.led] = this.time;
    this.led = one;
    if (one >= 0) this.wavesAt[one] = 0;
  }

  /** Has somebody wave who stands. */
  wave(one: number): void {
    this.troupe.pulse(one, this.hail);
  }

  /** @param vx where the one that is led goes, in pixels a second */
  step(ms: number, boats: Boats, vx: number, vy: number): void {
    const { troupe, led, count } = this;
    this.time += ms;
    const seconds = ms / 1000;
    for (let i = 0; i < count; i++) {
      if (i === led) {
        this.vx[i] = vx;
        this.vy[i] = vy;
      } else this.think(i, boats);
      this.move(i, seconds);
    }
    const before = performance.now();
    troupe.setEach(this.signals.vx, this.vx.subarray(0, count));
    troupe.setEach(this.signals.vy, this.vy.subarray(0, count));
    this.told = troupe.step(ms);
    this.took = performance.now() - before;
  }

  /** Finds what each shows. */
  draw(): void {
    this.troupe.draw(this.drawn);
  }

  /** The nearest to a place of those that can be seen there; -1 where there is nobody. */
  at(x: number, y: number, room = 18): number {
    let [best, near] = [-1, room * room];
    for (let i = 0; i < this.count; i++) {
      const [dx, dy] = [this.x[i]! - x, (this.y[i]! - 16 - y) * 0.7];
      const far = dx * dx + dy * dy;
      if (far < near) [best, near] = [i, far];
    }
    return best;
  }

  private think(i: number, boats: Boats): void {
    const { time, until, wavesAt, vx, vy, greeted } = this;
    if (wavesAt[i]! > 0) {
      // Who has stopped turns to the water, and then waves.
      vx[i] = 0;
      vy[i] = turning;
      if (wavesAt[i]! > time) return;
      this.troupe.pulse(i, this.hail);
      const again = this.chance() < 0.66;
      wavesAt[i] = again ? time + 1050 : 0;
      until[i] = time + 1600;
      return;
    }
    if (this.y[i]! > pavement.shore - nearWater) {
      const passing = boats.passingAt(this.x[i]!);
      if (passing >= 0 && passing !== greeted[i]) {
        greeted[i] = passing;
        const chance = this.chance();
        if (chance < 0.6) {
          vx[i] = vy[i] = 0;
          wavesAt[i] = time + 320 + chance * 2600;
          until[i] = wavesAt[i] + 1500;
          return;
        }
      }
    }
    if (until[i]! > time) return;
    const { chance } = this;
    if (chance() < 0.42) {
      vx[i] = vy[i] = 0;
      until[i] = time + 1500 + chance() * 5000;
      return;
    }
    const turn = chance() * 2 * Math.PI;
    const speed = 13 + chance() * 17;
    vx[i] = Math.cos(turn) * speed;
    vy[i] = Math.sin(turn) * speed * 0.6;
    until[i] = time + 1500 + chance() * 5500;
  }

  private move(i: number, seconds: number): void {
    const [vx, vy] = [this.vx[i]!, this.vy[i]!];
    if (vx === 0 && (vy === 0 || vy === turning)) return;
    const x = this.x[i]! + vx * seconds;
    const y = this.y[i]! + vy * seconds;
    // At an edge one turns back.
    if (x < 10 || x > quay.width - 10) this.vx[i] = -vx;
    else this.x[i] = x;
    if (y < pavement.top + 12 || y > pavement.shore - 10) this.vy[i] = -vy;
    else this.y[i] = y;
  }
}
