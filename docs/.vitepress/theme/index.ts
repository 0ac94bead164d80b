import { h } from 'vue';
import DefaultTheme from 'vitepress/theme';
import type { Theme } from 'vitepress';
import errand from '../../pictures/errand.webp';
import LiveDocument from './LiveDocument.vue';
import './style.css';

const theme: Theme = {
  extends: DefaultTheme,
  Layout: () =>
    h(DefaultTheme.Layout, null, {
      'home-hero-image': () =>
        h('img', { class: 'errand', src: errand, alt: 'Wick runs, hops onto a roof and swings his pole' }),
    }),
  enhanceApp({ app }) {
    app.component('LiveDocument', LiveDocument);
  },
};

// VitePress asks for a default export.
export default theme;
