/** Works a thing out once for each object that it is asked of: looks at one piece share it. */
export function oncePer<Key extends object, Value>(of: (key: Key) => Value): (key: Key) => Value {
  const known = new WeakMap<Key, { readonly value: Value }>();
  return (key) => {
    const told = known.get(key) ?? { value: of(key) };
    known.set(key, told);
    return told.value;
  };
}
