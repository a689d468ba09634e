/*
 * The public face of the core: what the server, the page and the command line use, by folder. What only the core and its tests use is
 * not here.
 */

// assembly: final assembly
export { isLugged, STIFF_TRIES } from './assembly/assemblyChecks.js';
export {
  FACE_WORDS,
  jobAssembly,
  type StationAssembly,
  type StationCheck,
  SWAP_PARTS,
  swapText,
} from './assembly/assemblyFacts.js';
export {
  type Assembly,
  BLANK_ASSEMBLY,
  type Built,
  type Check,
  FACE_SCHOOLS,
  type HandTurn,
} from './assembly/assemblySchema.js';
export { turnText } from './assembly/assemblySlice.js';
// build: the builds of an engine
export { type EarlierBuild, RUN_UNITS, type RunUnit } from './build/buildPart.js';
// cameApart: an engine as it came apart
export { BLANK_HALF, blankStation, CAP_ARROWS, type OldHalf, type OldStation } from './cameApart/cameApartPart.js';
export { isStationDescribed } from './cameApart/cameApartSlice.js';
export { LOOKS, suggestedLooks, WEAR_PATTERNS, wearPattern } from './cameApart/wearPatterns.js';
// clearance: oil clearance
export { chanceText } from './clearance/chanceText.js';
export type { AimRule } from './clearance/clearanceAim.js';
export type { ClearanceInterval } from './clearance/clearanceOfBands.js';
export type { OilClearance } from './clearance/oilClearance.js';
export { type QuickSum, quickSum } from './clearance/quickSum.js';
export { mattersAt, type SoakAdvice, type Soaking, soakAdvice } from './clearance/soak.js';
export type { Warm } from './clearance/temperature.js';
export { USUAL_CELSIUS_U } from './clearance/temperature.js';
// codes: grade marks and selection tables
export { type CodeSheet, type FamilyCodes, readCodeSheet, type StampedRow, type TableCell } from './codes/codeSheet.js';
export { type DecodedMark, type DecodedRow, decodeRow } from './codes/decodeRow.js';
export { generatedTable } from './codes/generatedTable.js';
export { type MarkDisagreement, markDisagreement } from './codes/markDisagreement.js';
export { bandsOf, codedFeatures, rowLayout } from './codes/markedBands.js';
export {
  type CellDifference,
  cellInterval,
  codesOfFamily,
  comparedTables,
  gradesOfCell,
  type SelectionCodes,
  selectionCodes,
} from './codes/selectionTable.js';
export { shellsAfterGrinding } from './codes/shellsAfterGrinding.js';
export { type TableFinding, tableFindings } from './codes/tableFindings.js';
// crush: crush at the joints
export { type CrushAdvice, crushAdvice } from './crush/crushAdvice.js';
export { crushAsk } from './crush/crushAsk.js';
export { type CrushRead, crushRead, jointState, sideOpening } from './crush/crushRead.js';
export {
  BLANK_JOINT,
  type Crush,
  JOINT_SIDES,
  type Joint,
  type JointSide,
} from './crush/crushSchema.js';
export { CRUSH_SETTINGS, type JointKind } from './crush/crushSettings.js';
export { type JointPlace, jointAim, jointLimits, jointPlaces } from './crush/crushSlice.js';
export { saddleAdvice } from './crush/saddleAdvice.js';
// document: what every document shares
export { cellOfCsv, csvCell } from './document/csvCell.js';
export { type DocumentFault, faultsOf } from './document/fault.js';
export {
  applyPatch,
  type Change,
  changesBetween,
  type Json,
  keysOfPointer,
  mergeThreeWays,
  PatchMisfit,
  type PatchStep,
  patchStepOf,
  valueAt,
  withValueAt,
} from './document/mergeThreeWays.js';
export { newStampsOfOthers, type PersonStamp, stampedBy, stampKey, stampsIn } from './document/stamps.js';
export { cutText, storageFaults } from './document/storableText.js';
export type { TableRow } from './document/tableRows.js';
export { type TypedLength, typedLength } from './document/typedLength.js';
// drawer: the workshop’s stock
export { type DrawerMovement, drawerMovementSchema } from './drawer/drawerMovement.js';
export {
  type DrawerItem,
  type DrawerPiece,
  drawerItemLabel,
  drawerItemSchema,
  drawerPieceSchema,
  isPiece,
  type PieceLine,
  pieceLineSchema,
} from './drawer/drawerPiece.js';
export { DRAWER_COLUMNS, type DrawerRow, drawerTable, readDrawerTable } from './drawer/drawerTable.js';
export { wallFinding, wallOverBall } from './drawer/halfOnReceipt.js';
export { isPieceTable, PIECE_COLUMNS, type PieceRow, pieceTable, readPieceTable } from './drawer/pieceTable.js';
export {
  type DrawerHalf,
  type DrawerLine,
  drawerHalfSchema,
  drawerLineSchema,
  freeHalves,
  freeOnShelf,
  isSameLine,
  type Kit,
  kitSchema,
  reservedHalves,
} from './drawer/workshopDrawer.js';
// endPlay: end play
export { chooseAgain, settleSeen } from './endPlay/chooseAgain.js';
export { type EndPlayStep, endPlaySteps } from './endPlay/endPlayAdvice.js';
export { endPlayAim } from './endPlay/endPlayAim.js';
export {
  acceptedPieces,
  endPlayAsk,
  type FreePieces,
  type NoPieceChoice,
  type PieceAsk,
} from './endPlay/endPlayAsk.js';
export {
  type EndPlayRound,
  endPlayBefore,
  endPlayNow,
  endPlayVerdict,
  predictionMissed,
} from './endPlay/endPlayRounds.js';
export {
  blankEndPlay,
  type EndPlay,
  type EndPlayReading,
  type Moment,
  type PieceChoice,
} from './endPlay/endPlaySchema.js';
export { END_PLAY_SETTINGS } from './endPlay/endPlaySettings.js';
export { momentWord } from './endPlay/endPlaySlice.js';
export { type FreeLines, freePieces, pieceFaults, takenPieces } from './endPlay/takenPieces.js';
export { endPlayOfHalves, thrustFlanges } from './endPlay/thrustFlanges.js';
// engineType: the data sheet
export { codeSheetOfType, withCodeSheet } from './engineType/codeSheetOfType.js';
export { limitsNeeded } from './engineType/engineSlice.js';
export { type EngineType, engineTypeSchema, readEngineType, type TypeFamily } from './engineType/engineType.js';
export { ENGINE_USES, USE_WORDS } from './engineType/engineUse.js';
export { headOfType, type TypeHead } from './engineType/headOfType.js';
export { ANY_GRADE_STEP, ANY_WALL, likelyLimit, middleWall, wallSpan } from './engineType/likelyLimits.js';
export {
  CHECKED_LIMITS,
  clearanceKey,
  clearanceLimitsOf,
  LIMIT_KEYS,
  type LimitKey,
  limitAt,
  limitName,
  limitsOfFamily,
  limitWord,
  type MainLimits,
  PLACED_LIMITS,
  type PlacedLimit,
  typeLimitsSchema,
} from './engineType/limits.js';
export { newEngineType } from './engineType/newEngineType.js';
export { type SheetDifference, sheetDifferences } from './engineType/sheetLines.js';
export { THRUST_KINDS, THRUST_TABLE, type ThrustKind, thrustKindOf } from './engineType/thrustKind.js';
// fit: the search
export { type Alternative, alternativesAt, type Placement, placementsOf } from './fit/alternatives.js';
export { type FitOptions, fit } from './fit/fit.js';
export { type FitError, type FitPlan, fitErrorSchema, fitPlanSchema } from './fit/format/fitPlan.js';
export { fitRequestSchema, readFitRequest } from './fit/format/fitRequest.js';
export type { ShimPlace } from './fit/format/shimPlace.js';
export { type ShimConflict, type ShimPlan, shimPlanSchema } from './fit/format/shimPlan.js';
export { readShimRequest, type ShimRequestInput, shimRequestSchema } from './fit/format/shimRequest.js';
export type { FitProblem } from './fit/model/fitProblem.js';
export type { FitSolution, Remedy, RemedyKind } from './fit/model/fitSolution.js';
export { type OffTarget, offTarget, planOffTarget } from './fit/offTarget.js';
export { planRequest } from './fit/planRequest.js';
export { halvesToOrder, type PlanVariants, planVariants } from './fit/planVariants.js';
export { readySearch } from './fit/readySearch.js';
export type { FitProgress, IntegerSolver } from './fit/search/choiceLimits.js';
export { loadIntegerSolver, withSolverIfNeeded } from './fit/search/loadIntegerSolver.js';
export { type SetSaving, type SetSavings, setSavings } from './fit/setSavings.js';
export { type JobsShimPart, type JobsShimPlan, jobsShims } from './fit/shims/jobsShims.js';
export { TooManyStacks } from './fit/shims/ringStacks.js';
export { type ShimChoice, shimChoices } from './fit/shims/shimAnswer.js';
export { type ShimOutcome, shimOutcome } from './fit/shims/shimOutcome.js';
export { shims } from './fit/shims.js';
export { type BuiltClearances, builtClearances } from './history/builtWith.js';
export { type CustomerReport, customerReport, type ReportPicture } from './history/customerReport.js';
// history: what the workshop knows from its engines
export {
  type CheckEvidence,
  type EngineEvidence,
  engineEvidence,
  gradeUsed,
} from './history/engineEvidence.js';
export {
  type GrindingAnswer,
  type GrindingPlan,
  grindingPlan,
  type JournalSize,
  MOST_SIZES,
  type NoSize,
} from './history/grindingPlan.js';
export { journalsToPlan } from './history/grindingSizes.js';
export { type NeedAhead, needAhead } from './history/needAhead.js';
export { nextBuild } from './history/nextBuild.js';
export { type RandomEffects, randomEffects } from './history/randomEffects.js';
export { reorderLevel } from './history/reorderLevel.js';
export type { ReportSection } from './history/reportSection.js';
export { type Share, shareInside } from './history/shareInside.js';
export { type PartThenNow, shellWorn, thenAndNow, WEAR_PER, wearRate, wornMost } from './history/thenAndNow.js';
export { startedWith, trustRatio } from './history/trustRatio.js';
// instrument: how well the workshop reads
export {
  type Calibration,
  type CalibrationDraft,
  type CalibrationPoint,
  calibrationDraftSchema,
  calibrationOn,
  calibrationSchema,
  dueAfter,
  lastCalibration,
} from './instrument/calibration.js';
export {
  type Component,
  gaugeStudy,
  type StudyResult,
  studyOf,
  toleranceShare,
} from './instrument/gaugeStudy.js';
export {
  INSTRUMENT_KINDS,
  INSTRUMENT_STATE_WORDS,
  INSTRUMENT_STATES,
  type InstrumentKind,
  type InstrumentState,
  instrumentKind,
} from './instrument/instrumentKinds.js';
export {
  INSTRUMENT_COLUMNS,
  instrumentTable,
  readInstrumentTable,
} from './instrument/instrumentTable.js';
export {
  type KnownInstrument,
  MOST_CALIBRATIONS,
  MOST_CHECKS,
  readSince,
  takenOver,
} from './instrument/knownInstrument.js';
export {
  COMMON_PRACTICE,
  instrumentDraftSchema,
  instrumentName,
  newInstrument,
  type RegisteredInstrument,
  readsRole,
  registeredInstrumentSchema,
} from './instrument/registeredInstrument.js';
export { type Repeats, repeatsOf } from './instrument/repeats.js';
export { readStudyFile } from './instrument/studyFile.js';
export {
  isInStudy,
  type StudyEntry,
  type StudyPlan,
  type StudyStep,
  studyOrder,
  studyPlanSchema,
  studySize,
} from './instrument/studyPlan.js';
export { type DriftSpan, driftSpans, suspectSpan, type ZeroCheck, zeroCheckSchema } from './instrument/zeroCheck.js';
// job: the engine’s document and its stages
export { buildSheet, buildSheetRows } from './job/buildSheet.js';
export { changeWords } from './job/changeWords.js';
export { dueOn } from './job/dueOn.js';
export { isLengthPlace } from './job/isLengthPlace.js';
export { JOB_FORMAT, type JobDocument, jobDocumentSchema } from './job/jobDocument.js';
export { jobFacts } from './job/jobFacts.js';
export { jobOfType, limitClashes, shellsOfSheet, withSheet } from './job/jobOfType.js';
export { type JobProgress, jobProgress } from './job/jobProgress.js';
export { type KitAsked, kitQuestionOfJob, type SeenMark } from './job/kitQuestions.js';
export { newJob } from './job/newJob.js';
export { openWork } from './job/openWork.js';
export { placeWords } from './job/slices.js';
export { STAGE_GROUPS } from './job/stageGroup.js';
export { type GroupProgress, groupProgress } from './job/stageGroups.js';
export { groupOf, STAGES, stageName } from './job/stageName.js';
export { type Stage, stageRows } from './job/stages.js';
// mainLine: whether the main bores lie in one line
export { type LineDirection, type LineRead, lineRead, type MainOff, mainNames } from './mainLine/mainLineRead.js';
export { linesOf, overLine, type TakenAt, takenAtMains } from './mainLine/mainLineSlice.js';
export { straightness } from './mainLine/straightness.js';
// measure: lengths, units, readings of text, uncertainty
export { type Budget, budgetUncertainty, sumBudget } from './measure/budget.js';
export { studentQuantile } from './measure/distributions.js';
export type { EffectiveSize } from './measure/effectiveSize.js';
export { commonDecimals, formatExactLength, formatLength, numberOfLength } from './measure/formatLength.js';
export { type GaugeLine, GaugeLines, gaugeLineSchema, gaugeText, PLAIN_LINE } from './measure/gaugeLine.js';
export {
  calibrationDue,
  INSTRUMENT_ROLES,
  type Instrument,
  type InstrumentRole,
  outsideRange,
  readingUncertainty,
} from './measure/instrument.js';
export { lengthOfNumber } from './measure/lengthOfNumber.js';
export type { Limit } from './measure/lengthSchema.js';
export { columnText, lengthText, roughText, spreadFigure, workedOutText } from './measure/lengthText.js';
export { type LikelyFigure, likelyFigures, likelyParts, type Span } from './measure/likelyFigures.js';
export { BELIEVABLE_WEAR, judgedReading } from './measure/misreading.js';
export { momentSchema } from './measure/moment.js';
export { momentText } from './measure/momentText.js';
export { type Nanometres, nanometres } from './measure/nanometres.js';
export { type Needle, type ParseContext, parseLength } from './measure/parseLength.js';
export { plainNumber } from './measure/plainNumber.js';
export { rangeOf, splitRange } from './measure/rangeText.js';
export { seeded } from './measure/seeded.js';
export { inThousandths, type ShownUnit } from './measure/shownUnit.js';
export type { Simulated } from './measure/simulated.js';
export type { MarkedBand } from './measure/sizeBand.js';
export { COVERAGE } from './measure/uncertainty.js';
export {
  CLEARANCE_DECIMALS,
  FINE_DECIMALS,
  INSTRUMENT_DECIMALS,
  otherUnit,
  type Unit,
  unitSchema,
} from './measure/unit.js';
export { withSign } from './measure/withSign.js';
export { openFormats } from './openFormats.js';
// order: what should be in stock
export { type BandShare, bandShares } from './order/bandShares.js';
export { type KitAdvice, type KitProgress, type KitStep, kitAdvice } from './order/kitAdvice.js';
export { type KitChance, kitChance } from './order/kitChance.js';
export { type KitQuestion, readKitQuestion } from './order/kitQuestion.js';
export { type ExpectedReading, type OneLengthRequest, type PieceOrder, pieceOrder } from './order/pieceOrder.js';
// part: families, features, the crank
export { type CrankLayout, MAINS_RANGE, MOST_RODS, usualLayout } from './part/crankLayout.js';
export { familiesOf } from './part/familiesOf.js';
export { eachFamily, FAMILIES, FAMILY_TABLE, type Family } from './part/family.js';
export {
  eachFeature,
  FEATURE_TABLE,
  FEATURES,
  type Feature,
  featureOf,
  partCount,
  partName,
  SLOTS,
  type Slot,
  slotName,
} from './part/feature.js';
export { mainListText, readMainList } from './part/mainList.js';
export type { Material } from './part/material.js';
export {
  READING_MODES,
  READING_REASONS,
  type Reading,
  type ReadingDraft,
  type ReadingMode,
  readingModeWord,
  readingOfDraft,
  readingSchema,
  sizeOfDraft,
  slotKey,
  type Taken,
} from './part/reading.js';
export { hasBanks, mayTakePin, rodBank } from './part/rodBanks.js';
export { rodCount } from './part/rodCount.js';
export { type Route, routes, type Zeroing } from './part/route.js';
export { type ShaftColumn, type ShaftShow, shaftColumns } from './part/shaftColumns.js';
export { type ShaftGeometry, shaftGeometry } from './part/shaftGeometry.js';
export { DIRECTION_COUNTS, type DirectionCount, type PlaneCount, schemeSlots } from './part/slot.js';
export type { Swap } from './part/swap.js';
export { throwsText, withThrows } from './part/throws.js';
// reading: readings of an engine
export { assessReading, needleOf, type ReadingAssessment, typedHow } from './reading/assessReading.js';
export { capsAsk, capsOn } from './reading/capsOn.js';
export type { TypedHow } from './reading/farFrom.js';
export {
  INSTRUMENT_USES,
  type InstrumentUse,
  roleOfUse,
  wordsOfUse,
} from './reading/instrumentUses.js';
export {
  expansionOf,
  type MeasuredPart,
  measuredParts,
  type ReadingSteps,
  readingSteps,
  sizeAtReference,
} from './reading/measuredParts.js';
export { MEASURING_SETTINGS } from './reading/measuringSettings.js';
export { correctionWords } from './reading/measuringSlice.js';
export { alongLineOf, isCoarse, offLineWords, type ReadingDoubt, readingDoubts } from './reading/readingDoubts.js';
export {
  READING_COLUMNS,
  type ReadingItem,
  type ReadingRow,
  readingTable,
  readReadingTable,
} from './reading/readingTable.js';
export {
  type InstrumentThen,
  instrumentByKey,
  instrumentFor,
  instrumentInUse,
  instrumentThen,
  instrumentWords,
  knownInstrument,
  readWith,
} from './reading/readWith.js';
export { type RowDoubt, rowDoubts } from './reading/rowDoubts.js';
export { adriftReadings, suspectReadings } from './reading/suspectReadings.js';
// running: an engine after its build
export {
  otherPressureUnit,
  PRESSURE_UNITS,
  type Pressure,
  type PressureUnit,
  pressureEcho,
  pressureIn,
  pressureText,
} from './running/pressure.js';
export {
  type EndPlaySince,
  endPlaySince,
  entriesInOrder,
  isRunningBegun,
  PRESSURE_WORDS,
  type PressureVerdict,
  pressureLimitText,
  pressuresNow,
  pressureVerdicts,
  type RecheckState,
  ranSoFar,
  recheckDueText,
  recheckStates,
  START_WORDS,
  startChecks,
} from './running/runningFacts.js';
export {
  PRESSURE_MOMENTS,
  type PressureLimit,
  type PressureMoment,
  type Recheck,
  type RunEntry,
  type Running,
  type StartCheck,
  type StartCheckMade,
} from './running/runningPart.js';

// runout: runout of the shaft
export type { Turn } from './runout/runoutSchema.js';
export { type RunoutAt, runoutsOf } from './runout/runoutSlice.js';
export { bentBy, type TurnRead } from './runout/turn.js';
export type { PairStock } from './selection/alikePairs.js';
export { type BarredPair, barredPairs } from './selection/barredPairs.js';
// selection: selecting shells for an engine
export { choiceFaults } from './selection/choiceFaults.js';
export { type ClearancesAtHand, clearancesAtHand } from './selection/clearancesAtHand.js';
export { type CodedStation, codedCell, codedStations, heldAsCoded } from './selection/codedStations.js';
export { withDrawn } from './selection/countedShells.js';
export { countsInSpread } from './selection/countsInSpread.js';
export { type FreeHalves, type JobFit, jobFit } from './selection/jobFit.js';
export {
  drawerLabel,
  type JobsChoice,
  type JobsFit,
  type JobsLeftOut,
  jobsChoices,
  jobsFit,
} from './selection/jobsFit.js';
export { acceptedForJobs, type JobsPiecesQuestion, jobsPieces } from './selection/jobsPieces.js';
export { type LockedOff, lockedOff } from './selection/lockedOff.js';
export { pieceOfLine } from './selection/pieceOfLine.js';
export { plannedHalves } from './selection/plannedHalves.js';
export type { LeftOut } from './selection/readyStations.js';
export { remedyForJob } from './selection/remedyForJob.js';
export { isByTable, stationOutcomes } from './selection/remedyOutcome.js';
export type { RuleRow } from './selection/ruleRow.js';
export { AIM_WORDS, lockedInWords, rulesInWords } from './selection/rulesInWords.js';
export { aimRuleSchema, RULES, type RuleKey, spreadMainsText, usualThinnerHalf } from './selection/ruleTable.js';
export type { SelectionJob } from './selection/selectionJob.js';
export { NO_WISHES, type StationWishes } from './selection/selectionPart.js';
export { shellOfLine } from './selection/shellOfLine.js';
export { shellsInOrder } from './selection/shellsInOrder.js';
export { type Candidate, nearestCandidate, stationCandidates } from './selection/stationCandidates.js';
export { withSwap } from './selection/withSwap.js';
// sheet: the build sheet
export { type BuildSheet, readBuildSheet, signedContent } from './sheet/buildSheetSchema.js';
export { comparedSheets, sinceSigned } from './sheet/comparedSheets.js';
export { sheetInThousandths } from './sheet/sheetInThousandths.js';
// shell: halves, washers and shims
export type { AcceptedChoice } from './shell/acceptedChoice.js';
export { type Grade, PAINTS, type Paint } from './shell/grade.js';
export { gradedWalls } from './shell/gradedFamily.js';
export { readPlaces, type Shell, shellLabel } from './shell/half.js';
export type { JobPiece } from './shell/jobPiece.js';
export { type JobShell, jobShellSchema } from './shell/jobShell.js';
export { FACES, type Face, PIECE_KINDS, PIECE_TABLE, type Piece, type PieceKind, pieceLabel } from './shell/piece.js';
export { positionSchema, THRUST_PLACE } from './shell/position.js';
export type { Side } from './shell/side.js';
export { cleanUp, derivedUndersize, type Undersize } from './shell/undersize.js';
export { bandSeen, countedAsSeen, countedByGrade } from './shell/wallSeen.js';

// stage: what a piece of the work is
export { ownSettings, type SettingField } from './stage/settingRow.js';
export type { StageState } from './stage/slice.js';
export { STATE_WORDS, type StationState } from './stage/stationState.js';
// station: what is known of a station
export { type ClearanceDraw, clearanceDraw, drawnClearance } from './station/clearanceDraw.js';
export {
  expectedKey,
  isWithOtherFasteners,
  offsetSource,
} from './station/expectedOffset.js';
export type { ExpectedOffset } from './station/expectedOffsetSchema.js';
export { type JobStation, mainStations, pinnedRods, placedRods, rodLabel, rodStations } from './station/jobStations.js';
export { pairVerdict, type StationVerdict, stationVerdict } from './station/stationVerdict.js';
export { trialLength } from './station/trialClearance.js';
export { GAUGE_MODES, type GaugeMode, TRIAL_SCHOOLS, type Trial, type TrialReading } from './station/trialSchema.js';
export { warmClearance } from './station/warmClearance.js';
// strip: gauging strips
export { STRIP_RANGES, STRIP_TELLS, stripFor, stripRead } from './strip/stripClearance.js';
export { STRIP_ENDS, type Strip, type StripEnd } from './strip/stripSchema.js';
// torque: tightening
export type { Bolt } from './torque/bolt.js';
export { boltOrder } from './torque/boltOrder.js';
export { FASTENER_PLACES, type FastenerPlace, PLACE_TABLE, type Torque, torqueSchema } from './torque/fastener.js';
export type { Fasteners } from './torque/fasteners.js';
export { fastenersWords } from './torque/fastenersWords.js';
export { namedFasteners } from './torque/namedFasteners.js';
export {
  fastenerFigures,
  isPassDone,
  type JobPassState,
  jobPassStates,
  jobStretches,
  type StretchRead,
} from './torque/tightenFacts.js';
export { TIGHTENING_WORDS, type Tightening, tighteningSchema, tighteningText } from './torque/tightening.js';
export { PASS_DOUBTS, passPlace, stretchWords } from './torque/torqueSlice.js';
export { MOST_STAGES, torqueStages } from './torque/torqueStages.js';
export { TORQUE_UNITS, type TorqueUnit, torqueEcho, torqueUnitWord } from './torque/torqueUnit.js';
// trial: trial assembly
export { firstToTry } from './trial/firstToTry.js';
export { stripVerdict } from './trial/stripVerdict.js';
export { trialCorrections } from './trial/trialCorrections.js';
export { CHANGED_WORDS, MODE_WORDS, SCHOOL_WORDS, type TrialState, trialState } from './trial/trialWords.js';
// wire: the endpoints
export { mayDo, ROLES, type Role, roleName, roleWords, whoMay } from './wire/access.js';
export {
  AUDIT_KINDS,
  type AuditEntry,
  type DeviceView,
  type PersonView,
  PLACES,
  passwordSchema,
  type Session,
  type Who,
} from './wire/accessWire.js';
export { addressOf } from './wire/addressOf.js';
export { type Held, type JobSummary, jobProgressSchema, jobSummarySchema } from './wire/benchWire.js';
export { commonPin } from './wire/commonPin.js';
export type { DrawerMove, KitView, Moved } from './wire/drawerWire.js';
export type { Endpoint } from './wire/endpoint.js';
export {
  type Answered,
  type Asked,
  ENDPOINTS,
  type EndpointName,
  endpointOf,
  type QueryName,
  type Read,
} from './wire/endpoints.js';
export { FIRST_ENDPOINTS } from './wire/firstEndpoints.js';
export type {
  BehindQuery,
  InstrumentReads,
  KindReads,
  KnownBuild,
  KnownEngine,
  KnownMarks,
  KnownScope,
  KnownUse,
  KnownWall,
  OffsetGroup,
  PersonReads,
} from './wire/historyWire.js';
export {
  CERTIFICATE_TYPES,
  type InstrumentSummary,
  type InstrumentView,
  LARGEST_CERTIFICATE,
  type StudyHead,
  type StudyView,
  type TouchedEngine,
} from './wire/instrumentWire.js';
export { type JobChange, type JobView, jobViewSchema } from './wire/jobWire.js';
export { LIVE_AT } from './wire/liveAt.js';
export { type LiveEvent, liveEventSchema, type Presence, tabSchema } from './wire/liveWire.js';
export { PAGE_ENDPOINTS, type PageEndpointName } from './wire/pageEndpoints.js';
export { type PageRoute, pageRoutes } from './wire/pageRoute.js';
export { PAGE_ROUTES } from './wire/pageRoutes.js';
export { type Problem, problemSchema } from './wire/problem.js';
export {
  PROBLEM_KINDS,
  type ProblemKind,
  problemKind,
  problemType,
} from './wire/problemKinds.js';
export {
  isSample,
  SAMPLE_ENGINES,
  SAMPLE_INSTRUMENTS,
  SAMPLE_SIGNED,
  SAMPLE_STOCK,
  SAMPLE_THIRD_BUILD,
  SAMPLE_TYPES,
} from './wire/sample.js';
export type { SamplesRemoved } from './wire/sampleWire.js';
export {
  FILE_ENDPOINTS as SHEET_FILES,
  LARGEST_PHOTO,
  type Paper,
  PHOTO_TYPES,
  type SignedSheet,
} from './wire/sheetWire.js';
export { TOPICS, type Topic } from './wire/topics.js';
export { MOST_TYPES_AT_ONCE, type TypeRevision, type TypeSummary, type TypeView } from './wire/typeWire.js';
export { type Missing, MOST_UNSENT, type Unsent, type UnsentChange, unsentWords } from './wire/unsentWire.js';
