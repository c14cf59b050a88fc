import React, { Suspense, useState } from 'react';
import { routes } from './routes';

export default function App() {
  const [path, setPath] = useState('/');
  const Page = routes.find((route) => route.path === path).component;
  return (
    <main>
      <h1>Harbour office</h1>
      <nav>
        {routes.map((route) => (
          <button key={route.path} type="button" onClick={() => setPath(route.path)}>
            {route.title}
          </button>
        ))}
      </nav>
      <Suspense fallback={<p>One moment</p>}>
        <Page />
      </Suspense>
    </main>
  );
}
