// The names of folk.dothop.yaml, for the compiler. Written by "dot-hop names", and by the plugin of @dot-hop/vite whenever the document changes.
import type { DocumentModule } from '@dot-hop/browser';

declare const character: DocumentModule<{
  values: {
    "vx": number;
    "vy": number;
  };
  pulses: "hail";
  states: "stand" | "walk" | "wave";
  tracks: "body";
  directions: "east" | "southeast" | "south" | "southwest" | "west" | "northwest" | "north" | "northeast";
  clips: "stand-south" | "stand-southeast" | "stand-east" | "stand-northeast" | "stand-north" | "walk-south" | "walk-southeast" | "walk-east" | "walk-northeast" | "walk-north" | "wave-south" | "wave-southeast" | "wave-east" | "wave-northeast" | "wave-north";
  reports: "step" | "stand" | "walk" | "wave" | "east" | "southeast" | "south" | "southwest" | "west" | "northwest" | "north" | "northeast";
  read: "vx" | "vy" | "hail" | "speed" | "moving" | "body" | `${string}.${string}`;
}>;
export default character;
