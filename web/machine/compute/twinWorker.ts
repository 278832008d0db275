import { expose } from 'comlink';
import { TwinEngine } from './twinEngine.js';

expose(new TwinEngine());
