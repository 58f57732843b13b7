/** Small drawings that carry a figure: how far a batch is, where the pour window lies. Always beside the figure in words. */

import { useId } from "react";

/** A tin whose fill is the share done, 0 to 1. */
export function Tin({ share, label }: { share: number; label: string }) {
  const inside = useId();
  const fill = Math.max(0, Math.min(1, share)) * 34;
  return (
    <svg role="img" aria-label={label} viewBox="0 0 72 56" className="h-14 w-18 flex-none">
      <rect x="4" y="6" width="64" height="9" rx="2.5" className="fill-paper-deep stroke-pine-soft" strokeWidth="1.5" />
      <path d="M8 15h56v31a5 5 0 0 1-5 5H13a5 5 0 0 1-5-5z" className="fill-sheet stroke-pine-soft" strokeWidth="1.5" />
      <clipPath id={inside}>
        <path d="M9 16h54v30a4 4 0 0 1-4 4H13a4 4 0 0 1-4-4z" />
      </clipPath>
      <rect x="8" y={50 - fill} width="56" height={fill} clipPath={`url(#${inside})`} className="fill-amber-glass" />
    </svg>
  );
}

/** A jar whose oil is as high as its infusion has come, 0 to 1, herb at its foot. */
export function Jar({ share, label, done }: { share: number; label: string; done?: boolean }) {
  const inside = useId();
  const fill = Math.max(0, Math.min(1, share)) * 58;
  return (
    <svg role="img" aria-label={label} viewBox="0 0 64 88" className="h-24 w-18 flex-none">
      <rect x="14" y="3" width="36" height="10" rx="2.5" className="fill-paper-deep stroke-pine-soft" strokeWidth="1.5" />
      <path
        d="M16 13h32c0 5 9 6 9 16v48a8 8 0 0 1-8 8H15a8 8 0 0 1-8-8V29c0-10 9-11 9-16z"
        className="fill-sheet stroke-pine-soft"
        strokeWidth="1.5"
      />
      <clipPath id={inside}>
        <path d="M17 14h30c0 6 9 7 9 16v47a7 7 0 0 1-7 7H15a7 7 0 0 1-7-7V30c0-9 9-10 9-16z" />
      </clipPath>
      <g clipPath={`url(#${inside})`}>
        <rect x="6" y={84 - fill} width="52" height={fill} className={done ? "fill-amber" : "fill-amber-glass"} />
        {[14, 24, 35, 46, 19, 41, 30].map((x, i) => (
          <path
            key={x}
            d={`M${x} ${80 - (i % 3) * 7}c-3-5-1-9 2-11 2 4 2 8-2 11z`}
            className="fill-sage stroke-none"
            transform={`rotate(${(i % 2 ? 1 : -1) * (20 + i * 9)} ${x} ${76 - (i % 3) * 7})`}
          />
        ))}
      </g>
    </svg>
  );
}

/** A thermometer with the usual pour window marked: about 50 to 58 °C for balms (common practice, no source). */
export function PourWindow() {
  const y = (celsius: number): number => 84 - ((celsius - 40) / 30) * 76;
  return (
    <svg role="img" aria-label="Thermometer: pour between 50 and 58 °C; scent below 50 °C" viewBox="0 0 150 108" className="h-32 w-44">
      <rect x="14" y="6" width="12" height="84" rx="6" className="fill-sheet stroke-pine-soft" strokeWidth="1.5" />
      <rect x="15" y={y(58)} width="10" height={y(50) - y(58)} className="fill-amber-glass" />
      <circle cx="20" cy="95" r="8.5" className="fill-amber-glass stroke-pine-soft" strokeWidth="1.5" />
      {[50, 58].map((c) => (
        <g key={c}>
          <line x1="27" x2="34" y1={y(c)} y2={y(c)} className="stroke-pine-soft" strokeWidth="1.2" />
          <text x="38" y={y(c) + 4} className="fill-pine-soft font-mono" fontSize="11">
            {c} °C
          </text>
        </g>
      ))}
      <text x="84" y={y(54) + 4} className="fill-pine font-sans" fontSize="12" fontWeight="600">
        pour here
      </text>
    </svg>
  );
}
