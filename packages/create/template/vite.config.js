import { dotHop } from '@dot-hop/vite';

// The plugin reads and checks the character, and hands each edit of it to the game while that runs.
export default { base: './', plugins: [dotHop({ names: true })] };
