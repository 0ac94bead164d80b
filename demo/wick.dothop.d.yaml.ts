// The names of wick.dothop.yaml, for the compiler. Written by "dot-hop names", and by the plugin of @dot-hop/vite whenever the document changes.
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
  pulses: "jump" | "swing" | "dash" | "bump" | "splash" | "sunk" | "blow";
  states: "stand" | "doze" | "go" | "brake" | "land" | "rise" | "takeoff" | "splashed" | "climb" | "knocked" | "get-up" | "fall" | "flip" | "dash" | "bump" | "swing1" | "swing2" | "swing3" | "with-body";
  tracks: "body" | "arms";
  directions: "east" | "west";
  clips: "stand" | "walk" | "run" | "takeoff" | "rise" | "fall" | "land" | "swing1" | "swing2" | "swing3" | "skid" | "splashed" | "knocked" | "get-up" | "climb" | "doze" | "dash" | "flip" | "bump";
  reports: "step" | "leap" | "thud" | "whoosh" | "scrape" | "drip" | "surge" | "stand" | "doze" | "go" | "brake" | "land" | "rise" | "takeoff" | "splashed" | "climb" | "knocked" | "get-up" | "fall" | "flip" | "dash" | "bump" | "swing1" | "swing2" | "swing3" | "with-body" | "east" | "west" | "skid" | "walk" | "run";
  read: "vx" | "vy" | "grounded" | "along" | "breath" | "jump" | "swing" | "dash" | "fresh" | "bump" | "splash" | "sunk" | "blow" | "speed" | "moving" | "running" | "lately" | "going" | "turning" | "footing" | "standing" | "drowsy" | "airborne" | "busy" | "swinging" | "body" | "arms" | `${string}.${string}`;
}>;
export default character;
