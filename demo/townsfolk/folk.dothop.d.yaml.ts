// The names of folk.dothop.yaml, for the compiler. Written by the plugin of @dot-hop/cli/vite whenever the document changes.
import type { DocumentModule } from '@dot-hop/browser';

declare const character: DocumentModule<{
  values: {
    "vx": number;
    "vy": number;
  };
  pulses: never;
  states: "stand" | "walk";
  tracks: "body";
  directions: "east" | "southeast" | "south" | "southwest" | "west" | "northwest" | "north" | "northeast";
}>;
export default character;
