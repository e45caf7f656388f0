import { createElement, type SVGProps } from 'react'
import type { IconNode } from 'lucide'

interface IconProps extends Omit<SVGProps<SVGSVGElement>, 'of'> {
  /** Lines on a square of 24, from Lucide (ISC licence). */
  readonly of: IconNode
  /** Of each side, in px. */
  readonly size: number
}

/** A drawn sign, in the colour of the words around it. Those that have no name of their own are hidden from screen readers. */
export function Icon({ of, size, strokeWidth = 2, ...rest }: IconProps) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth={strokeWidth}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden={rest['aria-label'] === undefined ? true : undefined}
      {...rest}
    >
      {of.map(([tag, attributes], i) => createElement(tag, { key: i, ...attributes }))}
    </svg>
  )
}
