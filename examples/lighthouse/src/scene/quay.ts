import {
  AmbientLight,
  BackSide,
  BoxGeometry,
  CanvasTexture,
  Color,
  ConeGeometry,
  CylinderGeometry,
  DirectionalLight,
  DoubleSide,
  Fog,
  Group,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  NearestFilter,
  PlaneGeometry,
  PointLight,
  SRGBColorSpace,
  Scene,
  SphereGeometry,
} from 'three';
import type { BufferGeometry, Object3D } from 'three';
import { chanceFrom } from '../../../common/chance.js';

const colours = {
  haze: '#8a5276',
  water: '#2f3768',
  stone: '#85729a',
  stoneDark: '#5d4f74',
  plank: '#8d6748',
  plankDark: '#5b4038',
  white: '#efe3d6',
  red: '#b4434f',
  roof: '#7d3f4c',
  lit: '#ffc766',
};

function solid(geometry: BufferGeometry, colour: string, x = 0, y = 0, z = 0): Mesh {
  const mesh = new Mesh(geometry, new MeshLambertMaterial({ color: colour, flatShading: true }));
  mesh.position.set(x, y, z);
  return mesh;
}

function glowing(geometry: BufferGeometry, colour: string, x = 0, y = 0, z = 0): Mesh {
  const mesh = new Mesh(geometry, new MeshBasicMaterial({ color: colour }));
  mesh.position.set(x, y, z);
  return mesh;
}

/** The small quay around its lighthouse, at dusk. The ground is at height 0. */
export class Quay {
  readonly scene = new Scene();
  private readonly beam = new Group();
  private readonly boat: Group;
  private readonly swell: Mesh<PlaneGeometry, MeshLambertMaterial>;

  constructor() {
    const { scene } = this;
    scene.fog = new Fog(colours.haze, 30, 70);
    scene.add(sky());
    scene.add(new AmbientLight('#a58fc0', 1.5));
    const sun = new DirectionalLight('#ffb27a', 2.1);
    sun.position.set(-9, 6, 4);
    scene.add(sun);
    this.swell = new Mesh(
      new PlaneGeometry(170, 170, 60, 60),
      new MeshLambertMaterial({ color: colours.water, flatShading: true }),
    );
    this.swell.rotation.x = -Math.PI / 2;
    this.swell.position.y = -0.95;
    scene.add(this.swell, island(), tower(this.beam), houses(), jetty());
    this.boat = fishingBoat();
    scene.add(this.boat, lamps());
  }

  step(time: number): void {
    this.beam.rotation.y = time / 1900;
    this.boat.position.y = -0.85 + Math.sin(time / 900) * 0.08;
    this.boat.rotation.z = Math.sin(time / 1300) * 0.05;
    const { position } = this.swell.geometry.attributes;
    for (let i = 0; i < position!.count; i++) {
      const [x, y] = [position!.getX(i), position!.getY(i)];
      position!.setZ(i, Math.sin(x * 0.9 + time / 1100) * 0.1 + Math.cos(y * 0.7 - time / 1500) * 0.1);
    }
    position!.needsUpdate = true;
  }
}

/** A dome from the dark above to the last light on the water. */
function sky(): Object3D {
  const canvas = document.createElement('canvas');
  canvas.width = 1;
  canvas.height = 128;
  const context = canvas.getContext('2d')!;
  // From straight up to straight down; the middle is the horizon.
  const bands = ['#241f4a', '#2d2456', '#3d2c62', '#5a3a70', '#7f4b78', '#b3626f', '#e08a63', '#f2b06a'];
  bands.forEach((colour, i) => {
    context.fillStyle = colour;
    context.fillRect(0, Math.round((i / bands.length) ** 0.62 * 62), 1, 128);
  });
  const texture = new CanvasTexture(canvas);
  texture.magFilter = NearestFilter;
  texture.colorSpace = SRGBColorSpace;
  const dome = new Mesh(
    new SphereGeometry(80, 24, 48),
    new MeshBasicMaterial({ map: texture, side: BackSide, fog: false, depthWrite: false }),
  );
  return dome;
}

function island(): Object3D {
  const group = new Group();
  const chance = chanceFrom(5);
  group.add(solid(new CylinderGeometry(8.6, 9.4, 1.2, 40), colours.stoneDark, 0, -0.61, 0));
  // Paving in rings of slabs, each a little lighter or darker.
  for (let ring = 0; ring < 6; ring++) {
    const [near, far] = [2.2 + ring * 1.06, 3.2 + ring * 1.06];
    const count = 10 + ring * 6;
    for (let i = 0; i < count; i++) {
      const angle = ((i + (ring % 2) * 0.5) / count) * 2 * Math.PI;
      const middle = (near + far) / 2;
      const stone = solid(
        new BoxGeometry(far - near - 0.06, 0.12, ((2 * Math.PI * middle) / count) * 0.95),
        new Color(colours.stone).offsetHSL(0, 0, (chance() - 0.5) * 0.07).getStyle(),
        Math.cos(angle) * middle,
        -0.06,
        Math.sin(angle) * middle,
      );
      stone.rotation.y = -angle;
      group.add(stone);
    }
  }
  for (let i = 0; i < 20; i++) {
    const angle = (i / 20) * 2 * Math.PI + 0.16;
    group.add(
      solid(
        new CylinderGeometry(0.13, 0.16, 0.5, 7),
        '#4b3544',
        Math.cos(angle) * 8.35,
        0.24,
        Math.sin(angle) * 8.35,
      ),
    );
  }
  return group;
}

function tower(beam: Group): Object3D {
  const group = new Group();
  group.add(solid(new CylinderGeometry(2.1, 2.4, 0.6, 12), colours.stoneDark, 0, 0.3, 0));
  for (let i = 0; i < 5; i++) {
    const [low, high] = [1.5 - i * 0.14, 1.5 - (i + 1) * 0.14];
    group.add(
      solid(
        new CylinderGeometry(high, low, 1.15, 14),
        i % 2 === 0 ? colours.white : colours.red,
        0,
        1.15 + i * 1.15,
        0,
      ),
    );
  }
  group.add(solid(new CylinderGeometry(1.25, 1.05, 0.25, 14), colours.stoneDark, 0, 6.45, 0));
  group.add(glowing(new CylinderGeometry(0.6, 0.6, 0.9, 10), '#ffe6a6', 0, 7, 0));
  group.add(solid(new ConeGeometry(0.95, 0.8, 12), colours.roof, 0, 7.85, 0));
  group.add(solid(new SphereGeometry(0.14, 8, 6), colours.lit, 0, 8.3, 0));
  for (let i = 0; i < 12; i++) {
    const angle = (i / 12) * 2 * Math.PI;
    group.add(
      solid(
        new BoxGeometry(0.06, 0.45, 0.06),
        '#3a2d4c',
        Math.cos(angle) * 1.15,
        6.8,
        Math.sin(angle) * 1.15,
      ),
    );
  }
  group.add(solid(new BoxGeometry(0.1, 1.2, 0.75), '#5b3a34', 2.02, 0.95, 0));
  for (const [angle, y] of [
    [1, 2.9],
    [2.6, 4],
    [4.4, 3.2],
  ] as const)
    group.add(
      glowing(
        new BoxGeometry(0.35, 0.5, 0.35),
        colours.lit,
        Math.cos(angle) * 1.16,
        y,
        Math.sin(angle) * 1.16,
      ),
    );
  // Two beams of light that go round.
  const shine = new MeshBasicMaterial({
    color: '#ffe9b0',
    transparent: true,
    opacity: 0.055,
    depthWrite: false,
    side: DoubleSide,
    fog: false,
  });
  for (const side of [1, -1]) {
    const cone = new Mesh(new ConeGeometry(1.3, 14, 18, 1, true), shine);
    cone.rotation.z = (side * Math.PI) / 2;
    cone.position.set(side * 7.3, 0, 0);
    beam.add(cone);
  }
  beam.position.y = 7;
  const light = new PointLight('#ffcf8a', 60, 26, 1.6);
  light.position.y = 7;
  group.add(beam, light);
  return group;
}

function houses(): Object3D {
  const group = new Group();
  for (const [angle, wall, width] of [
    [3.5, '#6a4a66', 2.3],
    [3.95, '#4d5a78', 1.9],
    [4.36, '#7a5550', 2.2],
  ] as const) {
    const house = new Group();
    house.add(solid(new BoxGeometry(1.7, 1.9, width), wall, 0, 0.95, 0));
    const roof = solid(new CylinderGeometry(0.01, 1.5, 1, 4), colours.roof, 0, 2.4, 0);
    roof.rotation.y = Math.PI / 4;
    roof.scale.set(1, 1, width / 1.9);
    house.add(roof);
    for (const z of [-0.5, 0.5])
      house.add(glowing(new BoxGeometry(0.06, 0.45, 0.36), colours.lit, -0.86, 1.25, z));
    house.add(solid(new BoxGeometry(0.06, 0.95, 0.5), '#3f2d38', -0.86, 0.48, 0));
    house.add(solid(new BoxGeometry(0.3, 0.8, 0.3), colours.stoneDark, 0.4, 2.6, 0.3));
    house.position.set(Math.cos(angle) * 9.2, -0.1, Math.sin(angle) * 9.2);
    house.rotation.y = -angle;
    group.add(
      house,
      solid(
        new CylinderGeometry(1.9, 2.2, 1.4, 9),
        colours.stoneDark,
        Math.cos(angle) * 9.2,
        -0.82,
        Math.sin(angle) * 9.2,
      ),
    );
  }
  return group;
}

function jetty(): Object3D {
  const group = new Group();
  for (let i = 0; i < 13; i++) {
    const plank = solid(
      new BoxGeometry(0.42, 0.12, 1.8),
      i % 3 === 1 ? colours.plankDark : colours.plank,
      8.4 + i * 0.46,
      -0.1,
      0,
    );
    group.add(plank);
    if (i % 4 === 1)
      for (const z of [-0.85, 0.85])
        group.add(
          solid(new CylinderGeometry(0.12, 0.12, 1.8, 6), colours.plankDark, 8.4 + i * 0.46, -0.5, z),
        );
  }
  for (const [x, z, size] of [
    [6.7, 2.9, 0.6],
    [7.2, 3.4, 0.5],
    [-6.4, 4, 0.6],
    [-5.9, 4.7, 0.45],
  ] as const) {
    const crate = solid(new BoxGeometry(size, size, size), colours.plank, x, size / 2, z);
    crate.rotation.y = x;
    group.add(
      crate,
      solid(new BoxGeometry(size * 1.04, size * 0.12, size * 1.04), colours.plankDark, x, size, z),
    );
  }
  return group;
}

function fishingBoat(): Group {
  const boat = new Group();
  const hull = solid(new CylinderGeometry(0.85, 0.5, 0.7, 6), '#35606c', 0, 0.2, 0);
  hull.scale.set(2.1, 1, 1);
  boat.add(hull, solid(new BoxGeometry(2.6, 0.1, 1.1), colours.plank, 0, 0.5, 0));
  boat.add(
    solid(new BoxGeometry(0.9, 0.7, 0.8), colours.white, -0.4, 0.9, 0),
    solid(new BoxGeometry(1, 0.1, 0.95), colours.red, -0.4, 1.3, 0),
  );
  boat.add(glowing(new BoxGeometry(0.05, 0.25, 0.5), colours.lit, 0.06, 0.98, 0));
  boat.add(solid(new CylinderGeometry(0.05, 0.05, 2, 6), colours.plankDark, 0.7, 1.4, 0));
  boat.position.set(11.5, -0.85, 2.6);
  boat.rotation.y = 0.3;
  return boat;
}

function lamps(): Object3D {
  const group = new Group();
  for (const angle of [0.5, 2.1, 3.1, 5.3]) {
    const [x, z] = [Math.cos(angle) * 7.9, Math.sin(angle) * 7.9];
    group.add(solid(new CylinderGeometry(0.06, 0.09, 2.2, 6), '#2c2340', x, 1.1, z));
    group.add(glowing(new SphereGeometry(0.2, 8, 6), '#ffdc94', x, 2.3, z));
    const light = new PointLight('#ffb45a', 7, 6, 1.4);
    light.position.set(x, 2.2, z);
    group.add(light);
  }
  return group;
}
