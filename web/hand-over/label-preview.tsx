import { LABEL_SIZES, labelLayout, type ClassLabel, type LabelSize } from '@decurio/core';
import classes from './hand-over.module.css';

/** The class label as it will print, at its true size where the screen tells the truth about a millimetre. */
export function LabelPreview({ label, size }: { readonly label: ClassLabel; readonly size: LabelSize }) {
  const layout = labelLayout(label, size);
  const { widthMm, heightMm } = LABEL_SIZES[size];
  if (!layout.ok)
    return (
      <p role="alert" className={classes['tooSmall']}>
        {layout.problem.message}
      </p>
    );
  const { titlePt, linePt, footPt } = layout.value;
  return (
    <div
      className={classes['label']}
      data-warning={label.warning !== null || undefined}
      style={{ width: `${widthMm}mm`, height: `${heightMm}mm` }}
    >
      {label.warning && (
        <>
          <b className={classes['warning']} style={{ fontSize: `${titlePt}pt` }}>
            {label.warning.title}
          </b>
          <span style={{ fontSize: `${footPt}pt` }}>{label.warning.says}</span>
        </>
      )}
      <b style={{ fontSize: `${titlePt}pt` }}>{label.title}</b>
      {label.lines.map(({ name, value }) => (
        <span key={name} style={{ fontSize: `${linePt}pt` }}>
          {name} <strong>{value}</strong>
        </span>
      ))}
      <small style={{ fontSize: `${footPt}pt` }}>{label.foot}</small>
    </div>
  );
}
