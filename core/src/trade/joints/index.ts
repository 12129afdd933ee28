import './figures';
export { jointsRoom } from './room';
export { clampOf, engagementFactor, proofMPa, proofShare, stressAreaMm2, type Clamp } from './clamp';
export { jointBatches, type JointBatch } from './recorded';
export { jointStates, type JointState } from './state';
export { jointsOf, type Joint, type JointSlices } from './list';
export { anodicIndexV, betweenFaces, galvanicLimitV, galvanicV, springOnFace } from './metals';
export { jointRules, measuredJointRules, torqueTolerance } from './rules';
export { defaultPollution } from './kind-step';
