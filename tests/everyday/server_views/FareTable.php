<?php

namespace App\View\Components;

use Illuminate\View\Component;

class FareTable extends Component
{
    /**
     * @param list<array{name: string, price: float}> $fares
     */
    public function __construct(
        public array $fares,
        public string $caption = 'Fares',
        public bool $compact = false,
    ) {
    }

    public function hasFares(): bool
    {
        return count($this->fares) > 0;
    }

    public function cheapest(): string
    {
        return number_format(min(array_column($this->fares, 'price')), 2);
    }

    public function render()
    {
        return view('components.fare-table');
    }
}
