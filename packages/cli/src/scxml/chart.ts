import type { Controller, ControllerDefinition, State } from 'dot-hop';
import { checkChartNames } from './names.js';
import { both, node, xmlOf } from './nodes.js';
import type { Node } from './nodes.js';
import { ChartStates } from './states.js';

/** A document as a state chart. */
export interface Chart {
  readonly text: string;
  /** What the standard has no place for, each with its path. */
  readonly leftOut: readonly string[];
}

/**
 * Writes a controller as SCXML 1.0 (W3C Recommendation) with the ECMAScript data model. The game sends it `signals` with
 * the values of one instant as data, pulses as `true`; it sends itself `cue.NAME`.
 *
 * @throws {Misuse} for a name that a state chart cannot hold
 */
export function chartOf(controller: Controller): Chart {
  checkChartNames(controller);
  return new ChartWriter(controller).write();
}

class ChartWriter extends ChartStates {
  write(): Chart {
    const { name, compass } = this.controller;
    const leftOut = this.leftOut();
    const { tracks, states } = this.controller;
    const ladders = tracks.map(({ name: track, order }) => {
      const own = states.filter(({ index }) => order.includes(index));
      const shown = own.find((one) => one.name === this.first.showing(track).state)!;
      const id = track === 'body' ? 'shows' : `shows.${track}`;
      return node('state', { id, initial: this.idIn(shown) }, ...this.nested(own, 0));
    });
    const regions =
      compass.names.length > 1 && this.definition.compass?.by !== undefined ? [this.facing()] : [];
    const chart = node(
      'scxml',
      {
        xmlns: 'http://www.w3.org/2005/07/scxml',
        version: '1.0',
        datamodel: 'ecmascript',
        // An attribute of this kind holds no space. (xs:NMTOKEN)
        name: name.replace(/[^\p{L}\p{N}_.:-]+/gu, '-') || 'character',
        initial: 'character',
      },
      node('datamodel', {}, ...this.data()),
      node('parallel', { id: 'character' }, ...this.hearing(), ...ladders, ...regions),
    );
    const notes =
      leftOut.length === 0 ? '' : `\nWhat a state chart has no place for:\n${leftOut.join('\n')}\n`;
    const use = 'send it "signals" with the values of an instant as data, pulses as true; it sends cue.NAME.';
    return { text: xmlOf(chart, ` ${name}: ${use}${notes} `), leftOut };
  }

  /** States, those of a group inside of a state of its own. @param depth in how many groups all of them are */
  private nested(states: readonly State[], depth: number): Node[] {
    const groups = new Set(states.flatMap(({ groups: in_ }) => in_[depth]?.name ?? []));
    return [
      ...states.filter((one) => one.groups.length === depth).map((one) => this.state(one)),
      ...[...groups].map((id) => {
        const inside = states.filter((one) => one.groups[depth]?.name === id);
        const rest = inside.find((one) => one.isGroupRest && one.groups.length === depth + 1)!;
        return node('state', { id, initial: this.idIn(rest) }, ...this.nested(inside, depth + 1));
      }),
    ];
  }

  /** Where it faces, side by side with what shows. */
  private facing(): Node {
    const { names, degrees, start } = this.controller.compass;
    const { by, deadZone = 0, up } = this.definition.compass!;
    const [x, y] =
      typeof by === 'string' ? [`${by}.x`, `${by}.y`] : by!.map((part) => this.expression(String(part)));
    const sign = up === '+y' ? '-' : '';
    const far = `Math.hypot(${x}, ${y}) >= ${Math.max(deadZone, Number.MIN_VALUE)}`;
    // How far the vector is from a direction, in degrees from 0 to 180.
    const off = (index: number): string =>
      `Math.abs((Math.atan2(${sign}(${y}), ${x}) * 180 / Math.PI - ${degrees[index]!} + 900) % 360 - 180)`;
    return node(
      'state',
      { id: 'faces', initial: `faces.${names[start]!}` },
      ...names.map((name, i) =>
        node(
          'state',
          { id: `faces.${name}` },
          ...names.flatMap((other, j) => {
            const nearest = names.map((_, k) => off(k)).join(', ');
            const cond = both(far, `${off(j)} === Math.min(${nearest})`, `${off(j)} < ${off(i)}`);
            return i === j ? [] : [node('transition', { cond, target: `faces.${other}` })];
          }),
        ),
      ),
    );
  }

  /** What the document says and a chart has no place for. */
  private leftOut(): string[] {
    const { compass } = this.definition;
    const fields = [
      'gaits',
      'carry',
      'rate',
      'scrub',
      'bridges',
      'turns',
      'leaves',
      'atLeast',
      'fit',
      'again',
    ] as const;
    const all = this.controller.states
      .filter(({ takenBy }) => takenBy < 0)
      .map((state) => [state.path.join('.'), this.definitionOf(state)] as const);
    const found = this.definition.variants === undefined ? [] : ['variants'];
    found.push(
      ...all.flatMap(([place, state]) => [
        ...fields.filter((field) => state[field] !== undefined).map((field) => `${place}.${field}`),
        ...(typeof state.shows === 'object' ? [`${place}.shows.any (its first clip counts)`] : []),
        ...(typeof state.facing === 'object' || state.facing === 'held' ? [`${place}.facing`] : []),
        ...(state.hops ?? []).flatMap(({ at }, i) =>
          typeof at === 'object' && 'phases' in at ? [`${place}.hops[${i}].at (taken at once)`] : [],
        ),
      ]),
    );
    const { tracks = {}, cues = {} } = this.definition;
    found.push(
      ...Object.keys(cues).map((cue) => `cues.${cue} (told by its own name)`),
      ...leftOutOfGroups(this.definition, ''),
      ...Object.entries(tracks).flatMap(([name, track]) => leftOutOfGroups(track, `tracks.${name}.`)),
    );
    const sideBySide =
      this.controller.tracks.length === 1
        ? []
        : ['ranks between tracks: what several would switch to at one instant, all do at once'];
    const turning = (['diagonal', 'through', 'stick'] as const).filter(
      (field) => compass?.[field] !== undefined,
    );
    return [
      'what is drawn: sheets, cells, flipbooks',
      ...sideBySide,
      ...found,
      ...turning.map((field) => `compass.${field}`),
    ];
  }
}

/** What groups say that a chart has no place for. @param path where they stand */
function leftOutOfGroups({ groups = {} }: Pick<ControllerDefinition, 'groups'>, path: string): string[] {
  return Object.entries(groups).flatMap(([name, group]) => {
    const at = `${path}groups.${name}.`;
    const said = (['carry', 'facing'] as const).filter((field) => group[field] !== undefined);
    return [...said.map((field) => `${at}${field}`), ...leftOutOfGroups(group, at)];
  });
}
