#!/usr/bin/env node
import { runCommand } from '../dist/index.js';

process.exitCode = await runCommand(process.argv.slice(2));
