export { declaredFields, Day, Decimal, DecimalList, Email, Flag, Id, Instant, OneOf, Part, Parts, Text, TextList, Whole, WholeList } from './fields.js';
export {
  AcceptForm,
  BatchForm,
  BlackoutForm,
  BriefForm,
  CANDIDATE_STATES,
  CandidateStateForm,
  ChannelForm,
  ClientForm,
  CopyForm,
  InterestForm,
  LayOutForm,
  MovePostForm,
  NewUserForm,
  PlacementForm,
  PlatformProfileForm,
  RecordingForm,
  ROLES,
  SignalWeightsForm,
  SignInForm,
  UserForm,
  WindowForm,
  OwnCandidateForm,
  WordSpanForm,
} from './forms.js';
export type { FieldSpec } from './fields.js';
export type { CandidateState, Role } from './forms.js';
