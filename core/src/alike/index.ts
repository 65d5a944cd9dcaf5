export * from './kind';
export * from './played-alike';
export {
  LEAST_PLAYERS,
  learnedAbout,
  learnedFor,
  learnedOfShop,
  type Among,
  type LearnedChange,
  type LearnedOfShop,
  type OfPlayer,
} from './learned';
