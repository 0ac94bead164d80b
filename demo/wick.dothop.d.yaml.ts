// The names of wick.dothop.yaml, for the compiler. Written by "dot-hop names", and by the plugin of @dot-hop/cli/vite whenever the document changes.
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
  states: "stand" | "doze" | "go" | "land" | "rise" | "takeoff" | "splashed" | "knocked" | "get-up" | "fall" | "fall-start" | "flip" | "dash" | "bump" | "swing1" | "swing2" | "swing3" | "with-body";
  tracks: "body" | "arms";
  directions: "east" | "west";
  clips: "stand" | "walk" | "run" | "takeoff" | "rise" | "fall-start" | "fall" | "land" | "swing1" | "swing2" | "swing3" | "skid" | "splashed" | "knocked" | "get-up" | "doze" | "dash" | "flip" | "bump";
  reports: "step" | "leap" | "thud" | "whoosh" | "scrape" | "drip" | "surge" | "stand" | "doze" | "go" | "land" | "rise" | "takeoff" | "splashed" | "knocked" | "get-up" | "fall" | "fall-start" | "flip" | "dash" | "bump" | "swing1" | "swing2" | "swing3" | "with-body" | "east" | "west" | "skid" | "walk" | "run";
  read: "vx" | "vy" | "grounded" | "along" | "breath" | "jump" | "swing" | "dash" | "fresh" | "bump" | "splash" | "blow" | "speed" | "moving" | "running" | "lately" | "footing" | "drowsy" | "airborne" | "busy" | "swinging" | "body" | "arms" | `${string}.${string}`;
}>;
export default character;
