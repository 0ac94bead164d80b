// The names of wick.dothop.yaml, for the compiler. Written by the plugin of @dot-hop/cli/vite whenever the document changes.
import type { DocumentModule } from '@dot-hop/browser';

declare const character: DocumentModule<{
  values: {
    "vx": number;
    "vy": number;
    "grounded": boolean;
    "along": number;
    "breath": number;
    "fresh": boolean;
  };
  pulses: "jump" | "swing" | "dash" | "bump" | "splash" | "blow";
  states: "stand" | "doze" | "go" | "land" | "fall" | "fall-start" | "rise" | "flip" | "dash" | "bump" | "takeoff" | "splashed" | "knocked" | "get-up" | "swing1" | "swing2" | "swing3" | "with-body";
  tracks: "body" | "arms";
  directions: "east" | "west";
}>;
export default character;
