import { Loader } from '@mantine/core';
import { IconFileImport } from '@tabler/icons-react';
import { useDropzone } from 'react-dropzone';
import { ORDER_COLUMNS } from '@decurio/contract';
import classes from './drop-order.module.css';

/** Where an order file is dropped, or chosen by key or finger. Every kind of file is let in: the server says what is wrong. */
export function DropOrder({ busy, onDrop }: { readonly busy: boolean; readonly onDrop: (file: File) => void }) {
  const { getRootProps, getInputProps, isDragActive } = useDropzone({ multiple: false, disabled: busy, onDropAccepted: ([file]) => file && onDrop(file) });
  return (
    <>
      <div {...getRootProps({ className: classes['zone'], role: 'button', 'aria-label': 'Drop an order file, or choose one', 'aria-busy': busy })} data-accept={isDragActive || undefined}>
        <input {...getInputProps({ 'aria-label': 'Order file' })} />
        <div className={classes['inside']}>
          {busy ? <Loader color="verdigris" size={38} /> : <IconFileImport size={38} stroke={1.4} aria-hidden="true" />}
          <div>
            <strong>Drop an order file here, or press Enter to choose one</strong>
            <p>CSV, a header line and one line per unit. It is checked first; nothing is taken until you say so.</p>
          </div>
        </div>
      </div>
      <details className={classes['help']}>
        <summary>Columns of an order file</summary>
        <dl>
          {ORDER_COLUMNS.map((column) => (
            <div key={column.name}>
              <dt className="num">{column.name}</dt>
              <dd>
                {column.says}
                {!column.required && ' (may be left out)'}
              </dd>
            </div>
          ))}
        </dl>
        <a href="/example-order.csv" download>
          Example file to start from
        </a>
      </details>
    </>
  );
}
