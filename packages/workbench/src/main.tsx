import { createRoot } from 'react-dom/client';
import { App } from './App.js';
import { begin } from './character/place.js';
import './style/workbench.css';

createRoot(document.getElementById('workbench')!).render(<App />);
void begin();
