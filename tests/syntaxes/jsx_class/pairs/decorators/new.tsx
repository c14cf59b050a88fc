import React from 'react';

function framed(title: string) {
  return (Inner: any): any => (props: any) => <fieldset><legend>{title}</legend><Inner {...props} /></fieldset>;
}

const counted = (Inner: any): any => (props: any) => <Inner {...props} count={(props.cargo ?? []).length} />;

interface CrateProps {
  crate: string;
}

const Crate = framed('crate')(function Crate({ crate }: CrateProps) {
  return <b>{crate}</b>;
});

interface ManifestProps {
  cargo?: string[];
  count?: number;
}

function Manifest(props: ManifestProps) {
  const { cargo = [], count } = props;
  return <div title={`${count}`}>{cargo.map((name) => <Crate key={name} crate={name} />)}</div>;
}

Manifest.displayName = 'Manifest';

export default framed('manifest')(counted(Manifest));
