# frozen_string_literal: true

module Server
  # Some neighbouring frames of what an order delivers, rendered by one worker for all its
  # outputs. found: frames that were lost, light levels and pixels beyond the codes, by output.
  class Part < Record
    FRAMES = 24

    belongs_to :order
    belongs_to :shot, optional: true

    scope :of, ->(order, shot_id) { where(order:, shot_id:) }

    def range = first...(first + frames)
  end
end
