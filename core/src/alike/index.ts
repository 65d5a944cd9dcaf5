export * from './kind';
export * from './played-alike';
export {
  LEAST_PLAYERS,
  learnedAbout,
  learnedFor,
  learnedOfShop,
  type LearnedChange,
  type OfPlayer,
} from './learned';
