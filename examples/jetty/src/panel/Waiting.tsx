import type { ReactNode } from 'react';
import { Scene } from '../../../common/parts.js';
import type { MountCanvas } from '../../../common/parts.js';

/** The jetty while its physics is still on the way: Wick stands there already, in the same place and size. */
export function Waiting({ mount, told }: { readonly mount: MountCanvas; readonly told: ReactNode }) {
  return (
    <main>
      <header>
        <h1>
          Jetty <small>Dot Hop</small>
        </h1>
      </header>
      <section className="left">
        <Scene mount={mount} label="Wick on the jetty at dusk" />
      </section>
      <aside>{told}</aside>
    </main>
  );
}
