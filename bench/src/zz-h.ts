import { benchHostile } from './hostile.js';
benchHostile(process.argv[2] ?? '');
