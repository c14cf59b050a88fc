import React, { useState } from 'react';
import {
  Alert, Button, Card, CardBody, CardTitle, Collapse, Form, Input, Nav, NavLink, TabContent, TabPane, UncontrolledAlert,
} from '../src';

export default function Application() {
  const [tab, setTab] = useState('1');
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  return (
    <main>
      <Alert color="info">Sailings are on time</Alert>
      <UncontrolledAlert color="warning">Berth 3 is closed</UncontrolledAlert>
      <Nav tabs>
        <NavLink active={tab === '1'} onClick={() => setTab('1')}>Sailings</NavLink>
        <NavLink active={tab === '2'} onClick={() => setTab('2')}>Berths</NavLink>
      </Nav>
      <TabContent activeTab={tab}>
        <TabPane tabId="1">Gull Island, 09:40</TabPane>
        <TabPane tabId="2">East quay</TabPane>
      </TabContent>
      <Button color="primary" onClick={() => setOpen(!open)}>{open ? 'Less' : 'More'}</Button>
      <Collapse isOpen={open}>
        <Card>
          <CardBody>
            <CardTitle>Cargo</CardTitle>
            <Form onSubmit={(event) => event.preventDefault()}>
              <Input value={name} onChange={(event) => setName(event.target.value)} />
            </Form>
          </CardBody>
        </Card>
      </Collapse>
    </main>
  );
}
