import { Loader } from '@mantine/core';
import { IconFileImport } from '@tabler/icons-react';
import { useDropzone } from 'react-dropzone';
import { ORDER_COLUMNS } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { saveFile } from '../../ui/save-file.js';
import { exampleOrder } from './example-order.js';
import classes from './drop-order.module.css';

/** Where an order file is dropped, or chosen by key or finger. Every kind of file is let in: the server says what is wrong. */
export function DropOrder({ busy, onDrop }: { readonly busy: boolean; readonly onDrop: (file: File) => void }) {
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    multiple: false,
    disabled: busy,
    noClick: true,
    noKeyboard: true,
    onDropAccepted: ([file]) => file && onDrop(file),
  });
  return (
    <>
      <div {...getRootProps({ className: classes['zone'] })} data-accept={isDragActive || undefined}>
        <input {...getInputProps({ 'aria-label': 'Order file' })} />
        {busy ? <Loader color="verdigris" size={38} /> : <IconFileImport size={38} stroke={1.4} aria-hidden="true" />}
        <div className={classes['says']}>
          <strong>Drop an order file here</strong>
          <p>CSV, a header line and one line per unit. It is checked first; nothing is taken until you say so.</p>
        </div>
        <ActButton busy={busy} onAct={open}>
          Choose a file
        </ActButton>
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
        <ActButton onAct={() => saveFile('example-order.csv', exampleOrder(), 'text/csv')}>
          Example file to start from
        </ActButton>
      </details>
    </>
  );
}
