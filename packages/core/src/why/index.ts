export { traceSteps, type Trace, type TraceStep } from './models.js';
export { explain, type TraceSources } from './explain.js';
