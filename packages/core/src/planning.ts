// Laying out by itself: nothing here reads talk, so that it starts at once.
export { explainPlan } from './plan/optimum/explain.js';
export { ProblemRefusedError, readProblem } from './plan/optimum/read-problem.js';
export { solvePlan } from './plan/optimum/solve.js';
export { formatMinute } from './plan/calendar.js';
export type { ExplainedPlan, UnplacedShort } from './plan/optimum/explain.js';
export type { PlanProblem } from './plan/optimum/problem.js';
