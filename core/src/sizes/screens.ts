/** A screen that many people have. */
export interface ScreenSize {
  readonly title: string
  /** As it is mostly held, in px. */
  readonly width: number
  readonly height: number
}

/** Screens that many people have, from narrow to wide (common practice, no source). */
export const SCREENS: readonly ScreenSize[] = [
  { title: 'Smallest window', width: 320, height: 640 },
  { title: 'Small phone', width: 360, height: 800 },
  { title: 'Phone', width: 390, height: 844 },
  { title: 'Large phone', width: 412, height: 915 },
  { title: 'Small tablet', width: 768, height: 1024 },
  { title: 'Tablet', width: 820, height: 1180 },
  { title: 'Small laptop', width: 1280, height: 800 },
  { title: 'Laptop', width: 1440, height: 900 },
  { title: 'Desktop', width: 1920, height: 1080 },
]
