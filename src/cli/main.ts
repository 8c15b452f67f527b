import { run } from './run';

// A reader such as head may close its end early; that is its right.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
	if (error.code !== 'EPIPE') throw error;
	process.exit();
});

process.exitCode = await run(process.argv.slice(2));
