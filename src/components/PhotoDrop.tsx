import type { ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import styles from './PhotoDrop.module.css';

interface Props {
  readonly label: string;
  readonly multiple?: boolean;
  /** Whether a phone offers its own camera as well. */
  readonly camera?: boolean;
  readonly onFiles: (files: readonly File[]) => void;
  /** What is to be seen in the photo. */
  readonly children?: ReactNode;
}

/** Where photos are chosen, dropped, or taken with a phone. */
export function PhotoDrop({ label, multiple = false, camera = false, onFiles, children }: Props) {
  const { getRootProps, getInputProps, isDragActive } = useDropzone({
    onDrop: onFiles,
    multiple,
    noClick: true,
    noKeyboard: true,
  });
  return (
    <div {...getRootProps({ className: `${styles.drop} ${isDragActive ? styles.over : ''}` })}>
      <label className={styles.pick}>
        {/* Styles in the page's own text are refused. */}
        <input
          {...getInputProps({
            className: styles.file,
            accept: 'image/jpeg,image/png,image/webp',
            'aria-label': label,
          })}
          style={{}}
        />
        <span>{multiple ? 'Choose photos, or drop them here' : 'Choose a photo, or drop it here'}</span>
      </label>
      {camera && (
        <label className={`${styles.pick} ${styles.camera}`}>
          <input
            type="file"
            className={styles.file}
            accept="image/*"
            capture="environment"
            aria-label="Take a photo with this phone"
            onChange={(event) => onFiles([...(event.target.files ?? [])])}
          />
          <span>Take it with this phone</span>
        </label>
      )}
      {children && <p>{children}</p>}
    </div>
  );
}
