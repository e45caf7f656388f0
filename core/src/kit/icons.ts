/** Drawn signs that blocks may show, from Lucide (ISC licence): lines on a square of 24, in the colour of the words. */
import {
  Accessibility,
  Baby,
  BookOpen,
  Bus,
  CalendarDays,
  Camera,
  Car,
  Clock,
  CloudMoon,
  Coffee,
  Compass,
  CreditCard,
  Download,
  Eye,
  FileText,
  Flashlight,
  Gift,
  GraduationCap,
  Hammer,
  HandHeart,
  Heart,
  House,
  Info,
  Lightbulb,
  Mail,
  MapPin,
  MessageCircle,
  Microscope,
  Moon,
  Mountain,
  Music,
  Orbit,
  Phone,
  Rocket,
  School,
  Shield,
  Sparkles,
  Star,
  Sun,
  Telescope,
  ThermometerSnowflake,
  Ticket,
  TreePine,
  Users,
  Utensils,
  Wrench,
  type IconNode,
} from 'lucide'
import { el, type Element } from './element.ts'

interface Icon {
  readonly title: string
  readonly shapes: IconNode
}
const icon = (title: string, shapes: IconNode): Icon => ({ title, shapes })

const ICONS = {
  access: icon('Access', Accessibility),
  baby: icon('Small child', Baby),
  book: icon('Book', BookOpen),
  bus: icon('Bus', Bus),
  calendar: icon('Calendar', CalendarDays),
  camera: icon('Camera', Camera),
  car: icon('Car', Car),
  clock: icon('Clock', Clock),
  night: icon('Cloudy night', CloudMoon),
  cup: icon('Cup', Coffee),
  compass: icon('Compass', Compass),
  card: icon('Card', CreditCard),
  download: icon('Download', Download),
  eye: icon('Eye', Eye),
  file: icon('File', FileText),
  torch: icon('Torch', Flashlight),
  gift: icon('Gift', Gift),
  learning: icon('Learning', GraduationCap),
  hammer: icon('Hammer', Hammer),
  giving: icon('Giving', HandHeart),
  heart: icon('Heart', Heart),
  house: icon('House', House),
  info: icon('Information', Info),
  idea: icon('Idea', Lightbulb),
  mail: icon('Mail', Mail),
  place: icon('Place', MapPin),
  talk: icon('Talk', MessageCircle),
  microscope: icon('Microscope', Microscope),
  moon: icon('Moon', Moon),
  hill: icon('Hill', Mountain),
  music: icon('Music', Music),
  orbit: icon('Orbit', Orbit),
  phone: icon('Phone', Phone),
  rocket: icon('Rocket', Rocket),
  school: icon('School', School),
  shield: icon('Shield', Shield),
  sparks: icon('Sparks', Sparkles),
  star: icon('Star', Star),
  sun: icon('Sun', Sun),
  telescope: icon('Telescope', Telescope),
  cold: icon('Cold', ThermometerSnowflake),
  ticket: icon('Ticket', Ticket),
  tree: icon('Tree', TreePine),
  people: icon('People', Users),
  food: icon('Food', Utensils),
  tool: icon('Tool', Wrench),
} as const satisfies Record<string, Icon>

export type IconName = keyof typeof ICONS
export const ICON_NAMES = Object.keys(ICONS) as readonly IconName[]

/** The word for each icon in the interface. */
export const ICON_WORDS = Object.fromEntries(
  Object.entries(ICONS).map(([name, { title }]) => [name, title]),
) as Readonly<Record<IconName, string>>

/** An icon as SVG. Beside words that say the same, so it is hidden from screen readers. */
export function iconElement(name: IconName): Element {
  const shapes = ICONS[name].shapes.map(([tag, attributes]) => el(tag, { ...attributes }))
  return el('svg', { className: ['icon'], viewBox: '0 0 24 24', ariaHidden: 'true' }, shapes)
}
