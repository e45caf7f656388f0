export { checkEditShape, defaultRegistry } from './blocks/default-registry.ts'
export { loadChecks, screenRegistry } from './blocks/screen-registry.ts'
export {
  firstWords,
  newNode,
  partSchema,
  slotAllows,
  type BlockDefinition,
  type BlockGroup,
  type NodePart,
} from './blocks/define-block.ts'
export type { FieldSchema } from './kit/fields.ts'
export { MOST_COLUMNS } from './blocks/kinds/columns.ts'
export { pageWords } from './resolve/page-words.ts'
export { fieldsOfWords, openPrompts, promptAt } from './blocks/prompts.ts'
export { ICON_WORDS, iconElement, type IconName } from './kit/icons.ts'
export { getKind, type Problem, type Registry } from './blocks/registry.ts'
export { shownSlots } from './resolve/shown.ts'
export { createStarters, itemStarters, PURPOSES, type Purpose, type Starter } from './blocks/starters.ts'
export { validatePage } from './blocks/validate-page.ts'
export {
  LONGEST_PART_ABOUT,
  LONGEST_PART_NAME,
  PART_PURPOSES,
  type PartFacts,
  type PartPurpose,
  type PartType,
} from './reuse/part-facts.ts'
export { patternOf, patternRefusal, savedStarter } from './reuse/patterns.ts'
export {
  componentField,
  fieldAt,
  instanceFields,
  isComponent,
  valueProblems,
  type InstanceField,
  type ValueProblem,
} from './reuse/component-values.ts'
export { instanceFindings } from './reuse/component-rules.ts'
export {
  AlikeFinder,
  comparableSections,
  joinSections,
  MOST_JOINED,
  sectionShape,
  withInstanceAt,
  type SectionOf,
  type SectionShape,
} from './reuse/near-duplicates.ts'
export {
  MOST_REACH_NODES,
  reachGraph,
  type PartUse,
  type ReachGraph,
  type ReachNode,
  type ShowerType,
} from './reuse/reach-map.ts'
export { fillable, newField, withFieldsForAll, type Fillable } from './reuse/make-component.ts'
export { fillAt, instanceSlots, slotOfFill, type InstanceSlot } from './resolve/instance-slots.ts'
export { addFillEdit, declareSlotEdits, setSlotsEdit } from './reuse/slot-edits.ts'
export { FILL_BLOCKS, MOST_COMPONENT_SLOTS, slotsOf, type ComponentSlot } from './blocks/component-slots.ts'
export { followTurnedEdits } from './reuse/turned-fields.ts'
export { otherPartEdits, withOtherPart } from './reuse/other-part.ts'
export {
  FIELDS_KEY,
  fieldsOf,
  LONGEST_FIELD_HELP,
  LONGEST_FIELD_LIMIT,
  LONGEST_FIELD_NAME,
  MOST_VARIANTS,
  schemaOf,
  valuesOf,
  VARIANT_KEY,
  VARIANTS_KEY,
  variantOf,
  variantsOf,
  type ComponentField,
  type ComponentVariant,
} from './blocks/component-fields.ts'
export {
  becomeInstanceEdits,
  canStandFor,
  instanceFragment,
  PART_ROOTS,
  SHARED_ROOTS,
  sharedPartOf,
  sharedRefusal,
  withRootId,
} from './reuse/shared-parts.ts'
export {
  findRing,
  instanceAround,
  partsShownBy,
  ringIn,
  seenIdOf,
  shownIdOf,
  shownParts,
  stepsOf,
} from './reuse/shown-parts.ts'
export { ownCopyEdits, withCopies } from './reuse/own-copies.ts'
export {
  freeOfTemplateEdits,
  pageOfTemplate,
  takeOver,
  templateChanges,
  templateOfPage,
  type TemplateChange,
  type TemplateChoices,
} from './reuse/own-templates.ts'
export {
  madeFromOf,
  templateRules,
  type MadeFrom,
  type TakenKinds,
  type TemplateRules,
} from './site/template-rules.ts'
export {
  copyFragment,
  duplicateEdit,
  holderFor,
  placeAfter,
  slotAt,
  placeEdit,
  placeEdits,
  replaceEdits,
  siblingMoveEdit,
  stepMoveEdit,
  type Fragment,
  unwrapEdits,
  wrapEdits,
} from './edits/compose.ts'
export { describeNode, nodeLabel } from './edits/describe.ts'
export { applyEdit, editSentence } from './edits/edit.ts'
export type { Edit, SetValue } from './edits/edit-shapes.ts'
export { lockRefusal } from './edits/lock.ts'
export { besideEdits } from './edits/beside.ts'
export { copyArrangementEdits, resetArrangementEdits } from './edits/copy-arrangement.ts'
export { copyLookEdits } from './edits/copy-look.ts'
export { joinBackEdits, startParagraphEdits } from './edits/text-flow.ts'
export {
  markedParagraphEdits,
  paragraphIntoEdits,
  takeNameMarkEdits,
  toTextEdits,
} from './edits/turn-into.ts'
export { mergeEdits, mergePair } from './edits/edit.ts'
export { fragmentFault } from './edits/insert.ts'
export { moveRefusal } from './edits/move.ts'
export { placingRefusal, type Target } from './edits/placing.ts'
export {
  isSharedSlot,
  FRAME_NAMES,
  isFrameName,
  joinPart,
  joinSession,
  pageChildIds,
  partAt,
  sessionRegistry,
  sharedNames,
  sharedRoot,
  type SessionPart,
  type SessionParts,
  type FrameName,
  type SharedName,
} from './site/session-page.ts'
export { changedParts, partOf } from './site/session-parts.ts'
export { ASIDE, layoutRefusal, LAYOUTS, layoutOf, type Layout, type LayoutName } from './site/layouts.ts'
export {
  LONGEST_DESCRIPTION,
  LONGEST_NAVIGATION_LABEL,
  LONGEST_TITLE,
  settingsOf,
  withSettings,
  type PageSettings,
  type SettingField,
} from './site/page-settings.ts'
export { textOf } from './resolve/page-text.ts'
export { languageFault } from './site/language.ts'
export { cutShort, cutToEnd } from './page/cut-short.ts'
export { migratePage } from './page/migrate.ts'
export { migrateEdit } from './edits/migrate-edit.ts'
export { readValue } from './edits/set.ts'
export type { ValueAddress } from './edits/edit-shapes.ts'
export { applyEdits, type Transaction } from './edits/transaction.ts'
export { EMPTY_HISTORY, record, redo, undo, type History } from './edits/undo.ts'
export { fluidPx, type FontFamily, type Look, type Surface, type Theme } from './look/look.ts'
export { themedLook } from './look/theme.ts'
export { STEP_WORDS } from './look/scales.ts'
export { ID_BYTES, ID_PATTERN, idFrom } from './page/id.ts'
export { sameJson, type Json, type JsonObject } from './page/json.ts'
export { lineRuns, lineWords, toLine, trimLine, withLineWords, type Line } from './page/line.ts'
export { isFileLink, isPageLink, type Link } from './page/link.ts'
export {
  findNode,
  getNode,
  PAGE_FORMAT,
  type NodeId,
  type Nodes,
  type Page,
  type PageNode,
  type SizeKey,
} from './page/page.ts'
export {
  MARKS,
  normalizeRichText,
  paragraphs,
  richTextWords,
  type ListItem,
  type List,
  type Mark,
  type RichText,
  type Run,
} from './page/rich-text.ts'
export { ancestry, childIds, findPlace, isWithin, subtreeIds } from './page/walk.ts'
export { anchorFrom } from './kit/anchor-from.ts'
export { outlineOf } from './resolve/outline.ts'
export { Expander, expandParts, linkedPart, originOf, type Parts, type ShownId } from './resolve/expand.ts'
export { Resolver, type ShownNode } from './resolve/resolve.ts'
export { NOT_FOUND_TEMPLATE, TEMPLATES, type Template } from './site/templates.ts'
export { changeLayoutEdits } from './edits/templates.ts'
export {
  columnCountEdits,
  columnShareEdits,
  columnShares,
  hasOwnShares,
  putBackSharesEdits,
  sharesWith,
} from './edits/columns.ts'
export { mergeNavigation } from './site/merge-navigation.ts'
export {
  navigationLines,
  MOST_NAVIGATION,
  navigationOf,
  withCurrent,
  type NavigationItem,
  type NavigationLine,
  type NavigationPage,
} from './site/navigation.ts'
export { pageTree } from './site/page-tree.ts'
export { readOf, recordReads, type ReadName } from './render/recorded-reads.ts'
export { hrefFault, safeHref, type HrefFault } from './kit/allow-list.ts'
export { hasSameStylesheet } from './render/arranged-rules.ts'
export { changedIds, withNodes } from './page/with-nodes.ts'
export { sizesOnScreen, stylesheetOnScreen, type FixedScreen } from './render/on-screen.ts'
export { createPageRenderer, renderPage, renderTree } from './render/render-page.ts'
export { createNodeRenderer, type NodeRenderer } from './render/render-node.ts'
export { SLOT_TAG, type Element } from './kit/element.ts'
export type { Crop } from './kit/crop.ts'
export type {
  NavigationEntry,
  Picture,
  SiteContext,
  SiteFile,
  SiteIcon,
  TreePage,
} from './kit/site-context.ts'
export { uprightFonts } from './render/look-css.ts'
export { TreeHtml } from './render/tree-html.ts'
export { canvasCss, renderStylesheet, type Stylesheet } from './render/stylesheet.ts'
export { cascadeValue, type ValueOrigin } from './sizes/cascade.ts'
export { SCREENS, type ScreenSize } from './sizes/screens.ts'
export { sizesSet } from './sizes/size-keys.ts'
export {
  FEWEST_SIZES,
  MOST_SIZES,
  sizesFault,
  withFormerSize,
  withoutSize,
  withSize,
} from './sizes/change-sizes.ts'
export {
  sampleWidth,
  sizeAt,
  sizeBounds,
  sizeWord,
  USUAL_SIZES,
  type SiteSize,
  type WithSizes,
} from './sizes/site-sizes.ts'
export { migrateLook } from './look/migrate-look.ts'
export { surfaceAround, unsetOrigin, type SurfaceAround } from './sizes/unset-origin.ts'
export { contrastRatio } from './look/contrast-ratio.ts'
export { isOwnColour, isOwnMeasure, leastContrast, ownSurface } from './look/own-values.ts'
export type { CheckedSite, Finding } from './checks/define-check.ts'
export { anchorsOf, pagesLinkedInto, runChecks, runSectionChecks } from './checks/run-checks.ts'
export { carriedSurfaces, inLook, type CarriedSurface } from './exchange/carry-look.ts'
export { checkSitePackageShape } from './exchange/check-site-package.ts'
export {
  carriedPaths,
  chosen,
  importKey,
  matcherOf,
  nameKey,
  planImport,
  type HereMedium,
  type HerePage,
  type HerePart,
  type HereSite,
  type ImportChoice,
  type ImportChoices,
  type ImportItem,
  type ImportPlan,
} from './exchange/import-plan.ts'
export { referencesOf, withRenamed, type ReferredThing, type Renamed } from './exchange/references.ts'
export {
  mediumPath,
  migrateSitePackage,
  PACKAGE_JSON,
  packagedDocuments,
  packageText,
  SITE_PACKAGE_FORMAT,
  sitePackageChecks,
  sitePackageProblems,
  type CarriedFile,
  type CarriedPage,
  type CarriedPart,
  type CarriedPicture,
  type CarriedSite,
  type SitePackage,
} from './exchange/site-package.ts'
export { fullSitePackageSchema } from './exchange/site-package-schema.ts'
export { colourDifference, nearestStep, nearestSurface } from './look/nearest.ts'
export { checkPackageShape } from './exchange/check-package-shape.ts'
export { fullPackageSchema } from './exchange/package-schema.ts'
export {
  EXTENSIONS,
  migratePackage,
  PACKAGE_FORMAT,
  packageContext,
  packagedFilePath,
  validatePackage,
  type PagePackage,
} from './exchange/page-package.ts'
export { READ_ENDINGS, readFile, UnreadableFile } from './exchange/read-file.ts'
export type { NotUnderstood, ReadPage } from './exchange/read-html.ts'
export {
  WRITTEN_FORMATS,
  writeHtml,
  writeJson,
  writeMarkdown,
  type WrittenFacts,
  type WrittenFormat,
} from './exchange/write-page.ts'
export { documentUses, type DocumentUse, type UsedThing } from './render/document-uses.ts'
export type * from './wire/wire.ts'
export type * from './wire/at-work.ts'
export type * from './wire/gullies.ts'
export type * from './wire/parts.ts'
export type * from './wire/alike.ts'
export type * from './wire/exchange.ts'
export { ROLES } from './wire/wire.ts'
export { drawnPage, withSettingsOf } from './wire/drawn-page.ts'
export { replayEntries, type Replayed } from './wire/replay-journal.ts'
export type { Requests } from './wire/request-schemas.ts'
export { checkRequest } from './wire/check-request.ts'
export {
  describeConflict,
  type Conflict,
  type ConflictWords,
  type Side,
  type Versions,
} from './compare/conflict.ts'
export { diffWords, type DiffPart } from './compare/word-diff.ts'
export { diffPages } from './compare/diff-pages.ts'
export { around as aroundPlaces, type GridPlace, type Placed } from './grid/placed.ts'
export { guidesOf, snapped, spansThatCentre, type Guide, type Side as GridSide } from './grid/snap.ts'
export {
  aligned,
  closeUp,
  distributed,
  emptyRowsAbove,
  makeRoom,
  relayered,
  type Alignment as GridAlignment,
  type LayerStep,
  resizedTogether,
} from './grid/rearrange.ts'
export {
  agreeingOrderEdits,
  derivedPlaceEdits,
  gridOf,
  placeBlocksEdits,
  placesAt,
} from './edits/grid-places.ts'
export { deriveArrangement } from './grid/derive.ts'
export { arrangedAt, arrangeGrid } from './grid/arrangement.ts'
export { gridReports, type GridAtSize, type GridReport } from './resolve/grid-report.ts'
export { readDesignTokens, UnreadableTokens, type LeftToken } from './look/design-tokens.ts'
export { lookFromTokens, tokenFile, type LookFromTokens, type TakenToken } from './look/look-from-tokens.ts'
export { LOOK_SCHEMA } from './look/look-schema.ts'
export { deltaBetween, withDelta, type PageDelta } from './compare/page-delta.ts'
export { changedBlocks } from './compare/changed-blocks.ts'
export { changeSentences } from './compare/change-sentences.ts'
export { mergePages, type Choose, type MergedPage } from './compare/merge-pages.ts'
export type {
  Box,
  MeasuredBand,
  MeasuredElement,
  MeasuredPicture,
  MeasuredTarget,
  MeasuredText,
  Pixels,
  PixelsOf,
  Rgba,
} from './measure/measured-page.ts'
export { rgbaOf } from './measure/colour.ts'
export { readBand, settingOf, WIDTH_RULES, type Reading, type Setting } from './measure/run-rules.ts'
export { SETTING_CSS } from './measure/rules/text-settings.ts'
export { PageSweep, type MeasuredPoint, type SweepJob } from './measure/page-sweep.ts'
export { RULES, SWEEP_FROM, SWEEP_TO } from './measure/sweep.ts'
export type { Gully } from './measure/gully.ts'
export { fixCandidates, type Fix } from './measure/fixes.ts'
export {
  ignoredGullies,
  ignoreEdit,
  LONGEST_REASON,
  reasonToIgnore,
  type IgnoredGully,
} from './site/ignored-gullies.ts'
export { findJump, jump } from './measure/rules/jump.ts'
export { convertsTo, toFlow, toGrid } from './edits/grid-conversion.ts'
