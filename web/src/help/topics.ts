/** What people come to do, each with its steps. The Help screen, the search and docs/help.md all show this text. */

export interface HelpTopic {
  readonly id: string
  readonly title: string
  /** Other everyday names that people search for. */
  readonly synonyms: readonly string[]
  /** `{save}` stands for the keys of the command of that name. */
  readonly steps: readonly string[]
}

export const HELP_TOPICS: readonly HelpTopic[] = [
  {
    id: 'add-page',
    title: 'Add a page',
    synonyms: ['new page', 'create page', 'template'],
    steps: [
      'On Pages, choose Add page.',
      'Type a title, choose the parent page, and choose a template by its picture.',
      'Choose Add page. The page opens as a draft; visitors see it once it is published.',
    ],
  },
  {
    id: 'edit-text',
    title: 'Edit text on a page',
    synonyms: ['write', 'type', 'change words'],
    steps: [
      'Double-click the text on the page, or select the block and press {type}.',
      'Type. Bold, italic, colour, links and lists are in the bar above the page, for words in headings too. Ctrl+K links the selected words.',
      'At the beginning of a paragraph, ## and a space make it a heading, and > and a space a quote. Two ** before and after words make them bold.',
      'In the line-up, double-click a text at any width to edit it there; all other widths follow.',
      'Press {out} to leave the text. Press {save} to save the page.',
    ],
  },
  {
    id: 'another-device',
    title: 'See a page on a phone while editing it',
    synonyms: ['preview', 'mobile', 'tablet', 'QR code', 'private address', 'share a draft'],
    steps: [
      'In the editor, open Screens at the left end of the ruler and choose Open on another device.',
      'Scan the code, or open the address. The page there follows what you type, saved or not.',
      'The address lasts an hour. End address ends it before.',
      'Without another device, choose Open simulated device: a small screen that is scrolled by a finger. Its Reduced motion shows the page as visitors see it who asked for less motion.',
    ],
  },
  {
    id: 'live-gullies',
    title: 'Find what breaks on live pages at any width',
    synonyms: ['gullies', 'responsive', 'audit', 'broken layout', 'breakpoints'],
    steps: [
      'Open Gullies. It lists each live page with the widths at which something is wrong, and why.',
      'Choose Open beside one. The editor shows the page at that width, with the block selected.',
      'Fix it, save, and publish. The page is measured again by itself.',
    ],
  },
  {
    id: 'add-block',
    title: 'Add a block',
    synonyms: ['insert', 'section', 'element', 'shelf'],
    steps: [
      'Select the block that the new one should follow.',
      'Press {add}, or press + at the selected block.',
      'Type a name such as picture, FAQ or banner, and press Enter; or drag a picture from the shelf to its place.',
      'While typing: two dots in an empty paragraph, then the name and Enter.',
    ],
  },
  {
    id: 'whole-page-body',
    title: 'Place a ready section or a whole page body',
    synonyms: ['pattern', 'template', 'about page', 'contact page', 'events'],
    steps: [
      'Press {add} and choose Patterns or Whole pages.',
      'Choose one by its picture. It becomes part of the page and can be changed freely.',
      'Fill in the pale text. Pale text that stays empty is never published.',
    ],
  },
  {
    id: 'shared-section',
    title: 'Show the same section on several pages',
    synonyms: ['shared section', 'reuse', 'opening hours', 'same on every page', 'global', 'linked'],
    steps: [
      'Select blocks or a section and press {make-shared}. Give it a name.',
      'On another page, press {add}, type that name and press Enter.',
      'To change it, double-click it on any page that shows it. The rest of the page is dimmed while you work in it.',
      'Press {save}: you are shown every page that changes with it. It goes live with the next page you publish.',
      'Press {own-copy} to cut one loose, so that it changes with nothing else any more.',
    ],
  },
  {
    id: 'component',
    title: 'Build one card, and fill it in on every page',
    synonyms: ['component', 'fields', 'card', 'repeat', 'same design'],
    steps: [
      'Select the block, press {make-shared}, and choose Component. Its texts, pictures and links become fields.',
      'Press {add}, type its name and press Enter to place another one.',
      'Double-click a text in it to write your own there, or fill in the fields in the details. The dot beside a field resets it.',
      'To change the design, press Edit component in the details. Select a block there to name its fields, to make more, or to say which are required.',
      'Save what one says as a variant in the details, and choose it for others.',
      'For blocks that differ from place to place, edit the component, select what holds them, and press Make it a slot.',
    ],
  },
  {
    id: 'what-changes',
    title: 'See which pages a change will reach',
    synonyms: ['reach map', 'where used', 'impact', 'dependencies', 'which pages', 'affected'],
    steps: [
      'Open Reach map. Parts are at the left, and the pages that show them at the right.',
      'Select a part to see everything that shows it, or a page to see all parts that it shows.',
      'When you save a change to a part, the dialog lists its pages, each before and after.',
    ],
  },
  {
    id: 'alike',
    title: 'Make one part of sections that are alike',
    synonyms: ['duplicates', 'near-duplicates', 'copies', 'same section', 'merge', 'consolidate'],
    steps: [
      'In the Library, press Find alike. Every section of every page is compared.',
      'Each group shows what differs on which page. Give it a name and press Make one component, or Make one shared section.',
      'The pages look as before. What the sections have in common is now edited in one place.',
    ],
  },
  {
    id: 'page-files',
    title: 'Bring in a page from a file, or save one as a file',
    synonyms: ['HTML', 'Markdown', 'JSON', 'import', 'export', 'migrate', 'convert', 'document'],
    steps: [
      'On Pages, press Add from a file and choose an HTML or Markdown file. It becomes blocks by what its parts mean.',
      'Read the list of what was not taken over, then press Add page. Add the pictures to the places that were kept for them.',
      'To save what a page says, select it on Pages, and choose HTML, Markdown or JSON below its picture.',
    ],
  },
  {
    id: 'another-site',
    title: 'Carry parts and pages to another site',
    synonyms: [
      'export',
      'import',
      'package',
      'second site',
      'copy to another site',
      'migrate',
      'zip',
      'move',
    ],
    steps: [
      'In the Library, select a part and press Export. Pages are exported from their menu in the list of pages, the whole site under Sites and people.',
      'On the other site, open the Library and press Import. Choose the file: you see what it brings and what is there already.',
      'For each thing that is there, keep yours, take theirs as a new version, or keep both. Then press Import.',
      'Administrators add sites under Sites and people. The button beside the site name goes from one to another.',
    ],
  },
  {
    id: 'pattern',
    title: 'Keep blocks to use them again',
    synonyms: ['pattern', 'template', 'library', 'save section'],
    steps: [
      'Select blocks or sections and press {save-pattern}. Give it a name.',
      'On any page, press {add} and type the name. It is placed as a copy that can be changed freely.',
      'Rename, describe or delete it in the Library.',
    ],
  },
  {
    id: 'move-block',
    title: 'Move a block',
    synonyms: ['drag', 'reorder', 'rearrange'],
    steps: [
      'Drag the block on the page or in the list at the left. A line shows where it will land.',
      'With keys: {move-up} and {move-down} move it one place. {in-before} moves it into the previous block, {out-after} out of its parent.',
    ],
  },
  {
    id: 'picture',
    title: 'Add or replace a picture',
    synonyms: ['image', 'photo', 'upload'],
    steps: [
      'Drop a picture file on the page, or paste it.',
      'To replace a picture, double-click it, or select it and press {settings}.',
      'For a gallery, choose Add several… in the details and press all that it should show.',
      'Describe each in Alternative text, or mark it as decorative.',
    ],
  },
  {
    id: 'crop',
    title: 'Crop a picture and keep what matters in view',
    synonyms: ['focus point', 'resize', 'cut'],
    steps: [
      'Select the picture and choose Crop… beside it in the details.',
      'Drag over the part to show, or choose Focus point and press the spot that must stay in view.',
      'Choose Apply.',
    ],
  },
  {
    id: 'link',
    title: 'Link to a page, a file or another site',
    synonyms: ['hyperlink', 'URL', 'anchor', 'download'],
    steps: [
      'Select text and choose Link in the bar, or select a button or card and choose Link in the details.',
      'Type a part of the page’s name or address and choose it; or type a web address.',
      'Links to pages and files stay right when those are moved or renamed.',
    ],
  },
  {
    id: 'columns',
    title: 'Put blocks side by side',
    synonyms: ['columns', 'row', 'grid', 'layout'],
    steps: [
      'Select a block and press {wrap-columns}, or drag a block to the side of another one.',
      'Choose the number of columns and their widths in the details, or drag the line between two columns.',
      'Alignment of a section, group or column moves all that is in it; Width lets one block be wider than its section.',
    ],
  },
  {
    id: 'grid',
    title: 'Place blocks on a grid, over each other',
    synonyms: ['overlap', 'layers', 'collage', 'free layout', 'columns and rows', 'grid section'],
    steps: [
      'Add a grid section from the shelf, and put blocks into it.',
      'Drag a block to its place, or press {grid-left} and the other arrows. Lines show what it is level with. Pull its edges to resize it.',
      'Blocks may overlap: {forward} brings one nearer, {backward} sends it back. {make-room} opens a row above a block for all below, {close-up} closes empty rows.',
      'Several selected blocks move as one. More actions aligns and distributes them. Exact numbers are under Layout in the details.',
      'Press {reading-path} to see the order in which screen readers and the Tab key go. Drag a number to another, or move it with the arrow keys.',
      'Narrower screens follow by themselves, in reading order. Choose Set per size to place a block there by hand; Auto lets it follow again.',
    ],
  },
  {
    id: 'gullyline',
    title: 'Find and fix what breaks between screen sizes',
    synonyms: ['gully', 'gullyline', 'responsive', 'overflow', 'breakpoint', 'contrast', 'cut off', 'mobile'],
    steps: [
      'Look at the ruler: its line dips where something breaks, deep for a problem, shallow for a warning.',
      'Press a dip, or {next-gully}: the page takes that width, and the block is selected.',
      'Open the list at the end of the ruler for all gullies, with why each is one.',
      'Choose Fix to see changes that mend it, before and after, and apply one. Choose Ignore, with a reason, to leave it.',
      'Chart by width shows how the height, the lines of text and the weight of the pictures change. Pause measuring gives a slow computer its time back.',
    ],
  },
  {
    id: 'page-template',
    title: 'Make a page template of a page',
    synonyms: ['template', 'fixed blocks', 'required fields', 'layout for editors'],
    steps: [
      'Administrators: open the page with nothing selected, and choose “Make a page template…” at the end of Page settings.',
      'Say which blocks are fixed, which must be filled in, and what sections take. New pages can then start from it.',
      'Change the page and choose “Change …” there to change the template. Pages made from it show “See what changed…”, section by section.',
    ],
  },
  {
    id: 'design-tokens',
    title: 'Change the look with design tokens',
    synonyms: ['colours', 'brand', 'fonts', 'theme', 'tokens', 'style sheet'],
    steps: [
      'Administrators: under Settings, Look, choose “Read design tokens…” and a file in the format of the Design Tokens Community Group.',
      'The home page is shown before and after, with what each token became. Use this look changes the live site; Undo brings the one of before back.',
    ],
  },
  {
    id: 'phone',
    title: 'See and arrange the page for phones',
    synonyms: ['mobile', 'responsive', 'tablet', 'screen width'],
    steps: [
      'Drag the pointer on the ruler to any width, or press {narrower} and {wider} for the named sizes.',
      'Press {line-up} to see the page at several widths side by side, or beside the one that was saved last or is live.',
      'Under View and Screens, at the left end of the ruler, see the page as visitors with other settings do, at common widths, turned, or in its own size.',
      'In the details, set a value for the narrow size. Changing a narrower size never changes a wider one.',
      'Press {copy-arrangement} to copy the arrangement of another size to the one that is shown, or to reset what was set there.',
      'Administrators: name the sizes, and say where each begins, under Settings, Screen sizes. Divide a size to add one.',
    ],
  },
  {
    id: 'accordion',
    title: 'Make an accordion or tabs',
    synonyms: ['FAQ', 'questions', 'collapse', 'toggle'],
    steps: [
      'Press {add} and type accordion.',
      'Type the questions and answers on the page. Add items in the details.',
      'Choose Accordion or tabs under Shown as.',
    ],
  },
  {
    id: 'look',
    title: 'Give several blocks the same look',
    synonyms: ['style', 'copy style', 'format'],
    steps: [
      'Select the block with the look you want and press {copy-look}.',
      'Select one or several other blocks and press {paste-look}.',
    ],
  },
  {
    id: 'undo',
    title: 'Undo, and get lost text back',
    synonyms: ['restore', 'recover', 'crash', 'unsaved'],
    steps: [
      'Press {undo} as often as you need; {redo} repeats what was undone.',
      'Every edit is saved as a draft at once. After a crash the editor offers to continue where you were.',
      'Text that could not be merged is under Set aside at the bottom of the editor.',
    ],
  },
  {
    id: 'lock',
    title: 'Lock a block',
    synonyms: ['protect', 'freeze', 'read-only'],
    steps: [
      'Select the block and press {hold} to lock all of it, or {hold-words} to leave only its text editable.',
      'Press {let-go} to unlock it.',
    ],
  },
  {
    id: 'publish',
    title: 'Publish a page',
    synonyms: ['go live', 'release', 'make public'],
    steps: [
      'Press {publish} in the editor, or choose Publish in the menu of a page on Pages.',
      'Problems that stop publishing are listed; choosing one goes to its place.',
      'On Pages several pages can be selected and published together.',
    ],
  },
  {
    id: 'unpublish',
    title: 'Take a page offline, or delete it',
    synonyms: ['unpublish', 'remove', 'hide', 'bin', 'restore'],
    steps: [
      'On Pages, open the menu of the page and choose Unpublish or Delete.',
      'A deleted page is in the Bin with everything that was saved, and can be restored there.',
    ],
  },
  {
    id: 'navigation',
    title: 'Change the navigation',
    synonyms: ['menu', 'header links', 'order'],
    steps: [
      'On Navigation, choose a page under Add a page, or hide one in the list. Its own settings have the same.',
      'On Navigation, drag the links into order and add links to other places.',
    ],
  },
  {
    id: 'header-footer',
    title: 'Change the header or the footer',
    synonyms: ['top of the page', 'bottom of the page', 'site name', 'shared section', 'every page'],
    steps: [
      'On any page, choose the header or the footer on the page or in the spine, and edit it in place. The details say on how many pages it is.',
      '{save} saves it together with the page. When you publish, the dialog says that it goes live, too, on every page.',
      'The links in the header are changed on Navigation.',
    ],
  },
  {
    id: 'address',
    title: 'Change a page’s title or address',
    synonyms: ['URL', 'slug', 'rename', 'redirect'],
    steps: [
      'Open the page and press {out} until nothing is selected: the details show the page settings.',
      'Change the title, or choose Change address. The old address leads visitors to the new one.',
    ],
  },
  {
    id: 'together',
    title: 'Work on a page together',
    synonyms: ['conflict', 'merge', 'colleague', 'collaboration'],
    steps: [
      'Others who have the page open are shown at the top.',
      'When somebody else has saved, your edits and theirs are merged. Where both changed the same text you choose, and the other text stays under Set aside.',
    ],
  },
  {
    id: 'missing-page',
    title: 'Change the page for missing addresses',
    synonyms: ['404', 'not found', 'error page'],
    steps: [
      'On Pages, open the page that is marked “shown for missing pages”.',
      'Edit it like any other page and publish it.',
    ],
  },
]

/** A step in pieces: text, and the names of commands whose keys stand there. */
export function piecesOf(step: string): readonly (string | { readonly command: string })[] {
  return step
    .split(/(\{[a-z-]+\})/)
    .filter((piece) => piece !== '')
    .map((piece) => (/^\{.+\}$/.test(piece) ? { command: piece.slice(1, -1) } : piece))
}
