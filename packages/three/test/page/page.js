import { drawPose, openCharacter } from '@dot-hop/browser';
import { Upright, seenByCamera } from '@dot-hop/three';
import { randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import * as THREE from 'three';
import folk from './folk.dothop.yaml';
import pim from './pim.dothop.yaml';

const [bare, dressed] = await Promise.all([pim, folk].map((one) => openCharacter(one)));
const canvas = document.querySelector('canvas');
const renderer = new THREE.WebGLRenderer({ canvas, antialias: false, alpha: true });
renderer.setPixelRatio(1);
renderer.setSize(320, 240, false);
renderer.outputColorSpace = THREE.SRGBColorSpace;
const scene = new THREE.Scene();
/** One pixel of the drawing is one of the picture, seen straight from the front. */
const camera = new THREE.OrthographicCamera(-10, 10, 10, -5, 0.1, 100);

function stands(character, options) {
  const upright = new Upright(character, { pixelsPerUnit: 16, spot: 0, ...options });
  scene.add(upright.object);
  return upright;
}

function pixels() {
  renderer.render(scene, camera);
  const copy = new OffscreenCanvas(320, 240).getContext('2d');
  copy.drawImage(canvas, 0, 0);
  return copy.getImageData(0, 0, 320, 240).data;
}

/** How the picture differs from the same pose drawn on a canvas with its pivot at the same place. */
function compared(upright, images) {
  upright.draw(camera);
  const there = pixels();
  const flat = new OffscreenCanvas(320, 240).getContext('2d');
  drawPose(flat, images, upright.performer.pose, 160, 160);
  const wanted = flat.getImageData(0, 0, 320, 240).data;
  let [differ, drawn] = [0, 0];
  for (let i = 0; i < wanted.length; i += 4) {
    if (wanted[i + 3] > 0) drawn++;
    // The card rounds colours by itself on their way through its own space.
    if ([0, 1, 2, 3].some((k) => Math.abs(there[i + k] - wanted[i + k]) > 3)) differ++;
  }
  return { differ, drawn };
}

function lookFrom(angle) {
  camera.position.set(Math.sin(angle) * 20, 0, Math.cos(angle) * 20);
  camera.lookAt(0, 0, 0);
  camera.updateMatrixWorld();
}

window.test = {
  /** Each direction that is seen as the camera goes round one who faces it first, and how each picture differs. */
  round(isDressed) {
    const character = isDressed ? dressed : bare;
    const upright = stands(seenByCamera(character));
    if (isDressed)
      upright.wear(
        wardrobeOf(upright.performer.controller).outfit(
          randomOutfit(wardrobeOf(upright.performer.controller), 5),
        ),
      );
    upright.face(0, 1);
    const seen = [];
    let [differ, drawn] = [0, 0];
    for (let i = 0; i < 8; i++) {
      lookFrom((i * Math.PI) / 4);
      for (let k = 0; k < 30; k++) upright.step(20, camera);
      const one = compared(upright, character.images);
      differ += one.differ;
      drawn += one.drawn;
      seen.push(upright.performer.facing);
    }
    scene.remove(upright.object);
    upright.dispose();
    return { seen, differ, drawn, left: renderer.info.memory.geometries };
  },
  /** How dark the ground is beside one who stands in the light, where her shadow falls, and beside it. */
  shadow() {
    renderer.shadowMap.enabled = true;
    const upright = stands(seenByCamera(bare), { lit: true });
    const ground = new THREE.Mesh(
      new THREE.PlaneGeometry(60, 60),
      new THREE.MeshLambertMaterial({ color: 'white' }),
    );
    ground.rotation.x = -Math.PI / 2;
    ground.receiveShadow = true;
    const sun = new THREE.DirectionalLight('white', 3);
    sun.position.set(0, 4, 8);
    sun.castShadow = true;
    Object.assign(sun.shadow.camera, { left: -8, right: 8, top: 8, bottom: -8 });
    sun.shadow.mapSize.set(1024, 1024);
    scene.add(ground, sun);
    camera.position.set(0, 20, 0.01);
    camera.lookAt(0, 0, 0);
    camera.updateMatrixWorld();
    upright.step(20, camera);
    upright.draw(camera);
    const data = pixels();
    // The camera looks straight down; the sun stands towards the lower edge, so her shadow falls upwards from the middle.
    const at = (x, y) => data[(y * 320 + x) * 4];
    const column = Array.from({ length: 120 }, (_, i) => at(160, 160 - i));
    const aside = Array.from({ length: 120 }, (_, i) => at(260, 160 - i));
    for (const one of [upright.object, ground, sun]) scene.remove(one);
    upright.dispose();
    return { shaded: column.filter((one) => one < 80).length, lit: Math.min(...aside) };
  },
  faults() {
    const told = (make) => {
      try {
        make();
        return 'nothing';
      } catch (error) {
        return error.message;
      }
    };
    return [
      told(() => seenByCamera(seenByCamera(bare))),
      told(() => new Upright(bare, { pixelsPerUnit: 0 })),
    ];
  },
};
