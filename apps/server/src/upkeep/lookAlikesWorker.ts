// The thread in which look-alikes are sought.
import { parentPort, workerData } from 'node:worker_threads';
import { lookAlikes, type Spelling } from '@dellum/core';

parentPort!.postMessage(lookAlikes(workerData as readonly Spelling[]));
