#!/usr/bin/env node
import { runCommand } from '../dist/cli/run-command.js';

process.exitCode = await runCommand(process.argv.slice(2));
// Whatever still holds the process after that is not worth waiting for.
setTimeout(() => process.exit(), 3000).unref();
