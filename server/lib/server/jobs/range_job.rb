# frozen_string_literal: true

module Server
  # Makes some of a range ready; what is there is not made again.
  class RangeJob < CountedJob
    self.maximum_retry_count = 2

    def work(render_id, first, count)
      render = RangeRender.fetch(render_id)
      wish = Pictures::Wish.new(cut: render.cut, screen: Screens.of(render.cut.project, render.screen))
      (first...(first + count)).each do |frame|
        break unless render.reload.live?

        (render.what == "noise") ? Pictures::Desk.current.clean(wish.with(frame:)) : Pictures::Kept.current.fetch(wish.with(frame:))
        render.count_one
      end
    rescue Mordant::Error, SystemCallError => e
      render&.update!(status: "failed", message: e.message)
    end

    def set_aside(render_id, _first, _count) = RangeRender.fetch(render_id).update!(status: "failed", message: REASON)
  end
end
