import { parentPort, workerData } from 'node:worker_threads';
import { closestPoints } from '@radiant/core';

// One of two workers: holds the tree, answers for its half of the queries, warm before it says that it is ready.
const { tree, points } = workerData;
for (let i = 0; i < 3; i++) closestPoints(tree, points);
parentPort.on('message', () => parentPort.postMessage(closestPoints(tree, points).distances));
parentPort.postMessage('ready');
