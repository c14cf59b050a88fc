import React, { Component } from 'react';

function framed(title: string) {
  return (Inner: any): any => (props: any) => <fieldset><legend>{title}</legend><Inner {...props} /></fieldset>;
}

const counted = (Inner: any): any => (props: any) => <Inner {...props} count={(props.cargo ?? []).length} />;

interface CrateProps {
  crate: string;
}

@framed('crate')
class Crate extends Component<CrateProps> {
  render() {
    return <b>{this.props.crate}</b>;
  }
}

interface ManifestProps {
  cargo?: string[];
  count?: number;
}

@framed('manifest')
@counted
export default class Manifest extends Component<ManifestProps> {
  static displayName = 'Manifest';

  render() {
    const { cargo = [], count } = this.props;
    return <div title={`${count}`}>{cargo.map((name) => <Crate key={name} crate={name} />)}</div>;
  }
}
