import '$lib/plainZod';
