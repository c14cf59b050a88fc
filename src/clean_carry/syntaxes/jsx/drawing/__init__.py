"""JSX as markup of the neutral component: what code that draws says."""
