<?php

namespace App\Http\Controllers;

use App\Models\Arrival;
use Illuminate\Http\JsonResponse;

class ArrivalController extends Controller
{
    public function index(string $quay): JsonResponse
    {
        return response()->json(
            Arrival::query()
                ->where('quay', $quay)
                ->orderBy('time')
                ->get(['ship', 'time', 'late'])
        );
    }
}
