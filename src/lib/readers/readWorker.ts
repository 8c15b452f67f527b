import '$lib/plainZod';
import { expose } from 'comlink';
import { readers } from './readers';

expose(readers);
