# frozen_string_literal: true

module Server
  # Begins a stretch of an order: makes place for its outputs and divides it into parts.
  class OpenJob < CountedJob
    self.maximum_retry_count = 2

    def work(order_id, shot_id)
      @order = Order.fetch(order_id)
      @stretch = Stretch.new(@order, shot_id)
      return if @order.paused

      outputs = @order.outputs.where(shot_id:).reject(&:over?)
      outputs.each { |output| output.begin_with(@stretch) if output.status == "waiting" }
      Work.divide(@order, shot_id, @stretch.length, quick: outputs.all? { |output| Lattices.new(output, @stretch).likely? }) if outputs.any? { |output| output.stage == "frames" }
      Work.conclude(@order, shot_id)
    rescue Mordant::Error, SystemCallError => e
      outputs&.each { |output| output.fail(e) unless output.reload.over? }
    end

    def set_aside(order_id, shot_id) = Order.fetch(order_id).outputs.where(shot_id:).reject(&:over?).each { |output| output.fail(REASON) }
  end
end
