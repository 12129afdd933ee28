export { defineRoom, type RecordJudge, type Room } from './room';
