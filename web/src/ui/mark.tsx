/** Our sign: a line that dips. */
export function Mark() {
  return (
    <svg width="30" height="20" viewBox="0 0 30 20" role="img" aria-label="Gullyline">
      <path
        d="M2 5h6c4 0 3.4 11 7 11s3-11 7-11h6"
        fill="none"
        stroke="var(--accent)"
        strokeWidth="2.6"
        strokeLinecap="round"
      />
    </svg>
  )
}
